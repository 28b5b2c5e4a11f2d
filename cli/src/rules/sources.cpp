#include "sources.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cctype>

#include "names_header.hpp"
#include "vole/base/files.hpp"

Sources::Sources(const std::string& root, const std::vector<std::string>& files) {
  for (const std::string& file : files) {
    if (!is_code(file)) continue;
    try {
      text_ += vole::read_text(vole::join_path(root, file), std::size_t{16} << 20) + "\n";
    } catch (const vole::Error&) {
      // What cannot be read says nothing.
    }
  }
}

bool Sources::is_code(const std::string& file) {
  constexpr std::array<std::string_view, 6> endings{".cpp", ".hpp", ".cc", ".cxx", ".h", ".hxx"};
  return std::any_of(endings.begin(), endings.end(), [&](auto ending) { return file.ends_with(ending); });
}

bool Sources::quote(const std::string& name) const {
  return text_.find(fmt::format("\"{}\"", name)) != std::string::npos;
}

bool Sources::mention(std::string_view scope, const std::string& name) const {
  return quote(name) || has_word(fmt::format("{}::{}", scope, cpp_identifier(name)));
}

bool Sources::has_word(const std::string& word) const {
  for (std::size_t at = text_.find(word); at != std::string::npos; at = text_.find(word, at + 1)) {
    const char after = at + word.size() < text_.size() ? text_[at + word.size()] : ' ';
    if (!std::isalnum(static_cast<unsigned char>(after)) && after != '_') return true;
  }
  return false;
}
