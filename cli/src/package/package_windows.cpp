// A ZIP for 64-bit Windows: one program that needs nothing else, its files beside it, and the licences.
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <filesystem>
#include <map>

#include "fill_in.hpp"
#include "icon.hpp"
#include "licences.hpp"
#include "other_system.hpp"
#include "package_targets.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/paths.hpp"

namespace {

using vole::Error;
using vole::FilePosition;
using vole::join_path;

// The first four numbers of a version, as the resource wants them: "1.2-beta3" is 1,2,3,0.
std::string four_numbers(std::string_view version) {
  std::array<unsigned, 4> numbers{};
  std::size_t count = 0;
  for (std::size_t at = 0; at < version.size() && count < numbers.size();) {
    unsigned number = 0;
    const char* const start = version.data() + at;
    const auto [end, wrong] = std::from_chars(start, version.data() + version.size(), number);
    if (end != start) numbers[count++] = wrong == std::errc{} ? std::min(number, 65535u) : 65535u;
    at += std::max<std::size_t>(static_cast<std::size_t>(end - start), 1);
  }
  return fmt::format("{},{},{},{}", numbers[0], numbers[1], numbers[2], numbers[3]);
}

constexpr std::string_view resource_script = R"(#pragma code_page(65001)
1 24 "game.manifest"
@ICON@1 VERSIONINFO
FILEVERSION @NUMBERS@
PRODUCTVERSION @NUMBERS@
FILEOS 0x40004L
FILETYPE 1
BEGIN
  BLOCK "StringFileInfo"
  BEGIN
    BLOCK "000004b0"
    BEGIN
      VALUE "FileDescription", "@TITLE@"
      VALUE "FileVersion", "@VERSION@"
      VALUE "InternalName", "@ID@"
      VALUE "OriginalFilename", "@ID@.exe"
      VALUE "ProductName", "@TITLE@"
      VALUE "ProductVersion", "@VERSION@"
    END
  END
  BLOCK "VarFileInfo"
  BEGIN
    VALUE "Translation", 0, 1200
  END
END
)";

// Paths longer than 260 letters, and UTF-8 in the game's own calls.
constexpr std::string_view manifest = R"(<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<assembly xmlns="urn:schemas-microsoft-com:asm.v1" manifestVersion="1.0">
  <application xmlns="urn:schemas-microsoft-com:asm.v3">
    <windowsSettings>
      <longPathAware xmlns="http://schemas.microsoft.com/SMI/2016/WindowsSettings">true</longPathAware>
      <activeCodePage xmlns="http://schemas.microsoft.com/SMI/2019/WindowsSettings">UTF-8</activeCodePage>
    </windowsSettings>
  </application>
</assembly>
)";

// Writes the resource script and what it names into the folder; returns the script's path.
std::string write_resource(const vole::Project& project, const std::string& folder) {
  vole::FileSet files;
  std::string icon;
  if (!project.icon.value.empty()) {
    files.add(join_path(folder, "game.ico"),
              icon_file(vole::read_png(join_path(project.root, project.icon.value))));
    icon = "1 ICON \"game.ico\"\n";
  }
  std::string script = join_path(folder, "game.rc");
  files.add(script, filled_in(resource_script, {{"@ICON@", icon},
                                                {"@NUMBERS@", four_numbers(project.version.value)},
                                                {"@TITLE@", filled_in(project.title.value, {{"\"", "\"\""}})},
                                                {"@VERSION@", project.version.value},
                                                {"@ID@", project.id.value}}));
  files.add(join_path(folder, "game.manifest"), manifest);
  files.put_in_place();
  return script;
}

std::string in_small_letters(std::string text) {
  for (char& c : text)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return text;
}

// What keeps a name between two slashes from being a file's on Windows; empty where nothing does.
std::string wrong_on_windows(std::string_view name) {
  const auto forbidden = [](char c) {
    return static_cast<unsigned char>(c) < 0x20 ||
           std::string_view("<>:\"|?*\\").find(c) != std::string_view::npos;
  };
  if (const auto found = std::find_if(name.begin(), name.end(), forbidden); found != name.end())
    return fmt::format("'{}' stands in no name there", *found);
  if (name.ends_with('.') || name.ends_with(' ')) return "no name ends in '.' or ' ' there";
  const std::string start = in_small_letters(std::string(name.substr(0, name.find('.'))));
  if (vole::is_windows_device(start)) return fmt::format("\"{}\" is a device there", start);
  return {};
}

void expect_windows_names(const std::vector<PackedFile>& files) {
  vole::Report report;
  std::map<std::string, std::string> seen;
  for (const PackedFile& file : files) {
    const FilePosition where = FilePosition::whole_file(file.path);
    for (std::size_t at = 0; at <= file.path.size();) {
      const std::size_t end = std::min(file.path.find('/', at), file.path.size());
      if (const std::string wrong = wrong_on_windows(std::string_view(file.path).substr(at, end - at));
          !wrong.empty())
        report.error(where, "cannot be a file's name on Windows", wrong);
      at = end + 1;
    }
    const auto [other, is_new] = seen.emplace(in_small_letters(file.path), file.path);
    if (!is_new)
      report.error(where, fmt::format("and \"{}\" would be one file on Windows", other->second),
                   "names that differ in capital letters alone are the same there");
  }
  report.throw_if_errors();
}

std::string absolute(const std::string& path) {
  return vole::to_utf8(std::filesystem::absolute(vole::to_path(path)));
}

std::string build_for_windows(const PackageWish& wish) {
  const OtherSystem windows = other_system("windows", wish.tool);
  expect_ready(windows);
  const std::string script =
      write_resource(wish.project, absolute(join_path(wish.options.folder, "build/windows/resource")));
  return build_for(windows, wish, wish.project.id.value + ".exe", {"-DVOLE_RESOURCE=" + script});
}

// What the compiler puts into every program, and the library that shows the window.
const std::vector<CompiledIn> in_the_program = {
    {"SDL2", "libsdl2-dev"}, {"gcc", "g++-mingw-w64-x86-64-posix"}, {"mingw-w64", "mingw-w64-x86-64-dev"}};

}  // namespace

std::vector<std::string> package_for_windows(const PackageWish& wish) {
  std::vector<PackedFile> files = packed_game(wish.project, "");
  expect_windows_names(files);
  const std::string program = wish.options.program.empty() ? build_for_windows(wish) : wish.options.program;
  vole::Bytes content = vole::read_bytes(program, std::size_t{1} << 30);
  if (content.size() < 2 || content[0] != 'M' || content[1] != 'Z')
    throw Error(FilePosition::whole_file(program), "is no program for Windows");
  files.push_back({wish.project.id.value + ".exe", std::move(content), true});
  for (PackedFile& licence : licence_files({}, in_the_program))
    files.push_back({"licences/" + licence.path, std::move(licence.content)});
  const std::string name = package_name(wish.project, "windows");
  for (PackedFile& file : files) file.path = name + "/" + file.path;
  std::string zip = join_path(wish.options.output, name + ".zip");
  write_zip(zip, std::move(files));
  return {std::move(zip)};
}
