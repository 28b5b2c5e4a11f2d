#include "vole/saves/save_file.hpp"

#include <fmt/core.h>

#include "base/toml_limits.hpp"
#include "vole/base/error.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/utf8.hpp"
#include "vole/base/writing.hpp"

namespace vole {
namespace {

constexpr std::string_view first_line =
    "# A save of a game made with Vole. A change by hand makes it useless.\n";
constexpr std::string_view before_sum = "sum = \"", after_sum = "\"\n";
constexpr std::size_t sum_digits = 16;
constexpr std::size_t longest_beginning = 1000;  // of a file, before what the sum is of

std::string sum_of(std::string_view body) {
  Hash hash;
  hash.add(body);
  return fmt::format("{:016x}", hash.value());
}

// What the sum is of.
std::string_view body_of(std::string_view text, const FilePosition& where) {
  if (text.size() > SaveFile::most_bytes)
    throw Error(
        where, fmt::format("is {} bytes long; a save has {} at the most", text.size(), SaveFile::most_bytes));
  const auto take = [&text, &where](std::string_view part) {
    if (!text.starts_with(part)) throw Error(where, "is not a save of a game made with Vole");
    text.remove_prefix(part.size());
  };
  take(first_line);
  take(before_sum);
  if (text.size() < sum_digits + after_sum.size()) throw Error(where, "is damaged: it is cut short");
  const std::string_view sum = text.substr(0, sum_digits);
  text.remove_prefix(sum_digits);
  if (!text.starts_with(after_sum) || sum_of(text.substr(after_sum.size())) != sum)
    throw Error(where, "is damaged: its sum is not that of what it holds");
  return text.substr(after_sum.size());
}

// The tables that a save holds come after its own lines.
std::string_view lines_of_head(std::string_view body) {
  const std::size_t end = body.find("\n[");
  return end == std::string_view::npos ? body : body.substr(0, end + 1);
}

SaveHead head_in(const TomlValue& toml, const FilePosition& where, std::string_view game) {
  SaveHead head;
  Report report;
  read(toml, head, report);
  report.throw_if_errors();
  if (head.format != SaveHead::known_format)
    throw Error(
        where, fmt::format("has the format {}, and this build reads {}", head.format, SaveHead::known_format),
        head.format > SaveHead::known_format ? "a newer version of the game has written it" : "");
  if (!game.empty() && head.game != game)
    throw Error(where, fmt::format("is a save of the game \"{}\", and this is \"{}\"", head.game, game));
  return head;
}

}  // namespace

std::string save_text(const SaveHead& head, std::string_view holds) {
  std::string body = to_toml(head);
  body.reserve(body.size() + holds.size() + 1);
  if (!holds.empty() && !holds.starts_with('\n')) body += '\n';
  body += holds;
  // Better no save than one that cannot be read.
  if (!is_utf8(body)) throw Error(FilePosition{}, "a text in it is not in UTF-8");
  if (body.size() > SaveFile::most_bytes - longest_beginning)
    throw Error(FilePosition{}, fmt::format("it would be larger than {} bytes", SaveFile::most_bytes));
  check_toml_limits(body, FilePosition::whole_file("the save").file, SaveFile::most_values);
  return save_text_of_body(body);
}

std::string save_text_of_body(std::string_view body) {
  std::string text;
  text.reserve(first_line.size() + body.size() + 64);
  text += first_line;
  text += before_sum;
  text += sum_of(body);
  text += after_sum;
  text += body;
  return text;
}

bool is_whole_save(std::string_view text) {
  try {
    body_of(text, FilePosition{});
    return true;
  } catch (const Error&) {
    return false;
  }
}

SaveHead read_save_head(std::string_view text, const std::string& file, std::string_view game) {
  const FilePosition where = FilePosition::whole_file(file);
  return head_in(parse_toml(lines_of_head(body_of(text, where)), file), where, game);
}

SaveFile read_save(std::string_view text, const std::string& file, std::string_view game) {
  const FilePosition where = FilePosition::whole_file(file);
  const std::string_view body = body_of(text, where);
  const std::size_t lines = lines_of_head(body).size();
  SaveFile save;
  save.head = head_in(parse_toml(body.substr(0, lines), file), where, game);
  save.holds = parse_toml(body.substr(lines), file, SaveFile::most_values);
  save.lines = body.substr(lines);
  return save;
}

}  // namespace vole
