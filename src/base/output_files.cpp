#include "vole/base/output_files.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <filesystem>
#include <fstream>

#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/paths.hpp"

namespace vole {
namespace {

namespace fs = std::filesystem;

constexpr std::array<std::string_view, 3> marks{"Made by Vole", "# A recording of a game made with Vole.\n",
                                                "# The state of a game made with Vole.\n"};
constexpr std::array<std::string_view, 3> kind_names{"picture", "recording", "state"};

// A chunk that readers of PNG skip: "Comment" and the mark, with its length before and its checksum (CRC-32) behind.
constexpr std::string_view png_comment{"\0\0\0\x14tEXtComment\0Made by Vole\x6b\xc2\xd1\x5d", 32};
constexpr std::size_t png_header = 33;  // the signature and the first chunk, which says what the picture is

// The first bytes, in which the mark must be.
std::string beginning_of(const std::string& path) {
  std::string text(4096, '\0');
  std::ifstream in(to_path(path), std::ios::binary);
  in.read(text.data(), static_cast<std::streamsize>(text.size()));
  text.resize(static_cast<std::size_t>(in.gcount()));
  return text;
}

bool begins_like(std::string_view text, OutputKind kind) {
  const std::string_view mark = output_mark(kind);
  switch (kind) {
    case OutputKind::picture:
      // A GIF has the mark behind its table of colours.
      return (text.starts_with("\x89PNG\r\n\x1a\n") || text.starts_with("GIF89a")) &&
             text.find(mark) != std::string_view::npos;
    case OutputKind::recording:
      // Older ones have no first line that says so.
      return text.starts_with(mark) || (text.starts_with("format = ") && text.find("\ngame = ") < 20 &&
                                        text.find("\nvole_version = ") != std::string_view::npos);
    case OutputKind::state:
      return text.starts_with(mark);
  }
  return false;
}

bool is_same_file(const std::string& a, const std::string& b) {
  std::error_code failed;
  if (fs::exists(to_path(a), failed)) return fs::equivalent(to_path(a), to_path(b), failed) && !failed;
  // Of one that is not there yet, by its name.
  const fs::path first = fs::weakly_canonical(fs::absolute(to_path(a), failed), failed);
  return !failed && first == fs::weakly_canonical(fs::absolute(to_path(b), failed), failed) && !failed;
}

}  // namespace

std::string_view output_mark(OutputKind kind) {
  return marks[static_cast<std::size_t>(kind)];
}

bool is_output(const std::string& path, OutputKind kind) {
  std::error_code failed;
  if (fs::file_size(to_path(path), failed) == 0 && !failed) return true;
  return begins_like(beginning_of(path), kind);
}

Bytes marked_as_output(Bytes png) {
  if (png.size() < png_header) return png;
  png.insert(png.begin() + png_header, png_comment.begin(), png_comment.end());
  return png;
}

void OutputFiles::keep(const std::string& input, std::string_view why) {
  kept_.emplace_back(input, why);
}

void OutputFiles::add(const std::string& path, OutputKind kind) {
  const FilePosition where = FilePosition::whole_file(path);
  expect_writable(path);
  std::error_code unknown;
  // A device or a pipe stays what it is, and may be written to twice.
  const fs::file_status there = fs::status(to_path(path), unknown);
  if (fs::exists(there) && !fs::is_regular_file(there)) return;
  for (const auto& [file, why] : kept_)
    if (is_same_file(path, file)) throw Error(where, why, "give the output another name");
  if (!force_ && file_exists(path) && !is_output(path, kind))
    throw Error(where,
                fmt::format("is there already, and is no {} that Vole made",
                            kind_names[static_cast<std::size_t>(kind)]),
                "give the output another name, or replace the file with --force");
  keep(path, "is another output of this run");
}

}  // namespace vole
