#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "commands.hpp"
#include "game_files.hpp"
#include "licences.hpp"
#include "process.hpp"
#include "tarball.hpp"
#include "vole/app/project.hpp"
#include "vole/base/error.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Error;
using vole::FilePosition;

vole::Bytes bytes_of(std::string_view text) {
  return {text.begin(), text.end()};
}

std::string as_command(const std::vector<std::string>& words) {
  std::string line;
  for (const std::string& word : words)
    line += fmt::format("{}{}", line.empty() ? "" : " ", shell_word(word));
  return line;
}

void must_run(const std::vector<std::string>& words, const std::string& what) {
  const ProcessResult result = run_process(words);
  if (result.code == 0) return;
  fmt::print(stderr, "{}", result.output);
  throw Error(FilePosition{}, fmt::format("{} failed; the command was: {}", what, as_command(words)));
}

// Builds the game's target of the same name as its id and returns the program's path.
std::string build(const std::string& folder, const std::string& id, const std::string& tool) {
  const std::string out = vole::join_path(folder, "build/package");
  std::vector<std::string> configure{"cmake", "-S", folder, "-B", out, "-DCMAKE_BUILD_TYPE=Release"};
  if (const std::string found = vole_cmake_folder(tool); !found.empty())
    configure.push_back("-Dvole_DIR=" + found);
  fmt::print(stderr, "building {} ...\n", id);
  must_run(configure, "configuring the build");
  must_run({"cmake", "--build", out, "--target", id, "--parallel"}, "the build");
  std::string program = vole::join_path(out, id);
  if (!vole::file_exists(program))
    throw Error(FilePosition::whole_file(program), "was not built",
                fmt::format("the program's CMake target must be named \"{}\", as the id in game.toml", id));
  return program;
}

std::string start_script(const std::string& id) {
  return fmt::format(
      "#!/bin/sh\n"
      "# Starts the game with the libraries that came along.\n"
      "here=$(dirname -- \"$(readlink -f -- \"$0\")\")\n"
      "LD_LIBRARY_PATH=\"$here/lib${{LD_LIBRARY_PATH:+:$LD_LIBRARY_PATH}}\"\n"
      "export LD_LIBRARY_PATH\n"
      "exec \"$here/game/{}\" \"$@\"\n",
      id);
}

// The entry finds the start script beside itself (%k), wherever the folder was unpacked.
std::string desktop_entry(const vole::Project& project) {
  return fmt::format(
      "[Desktop Entry]\n"
      "Type=Application\n"
      "Version=1.1\n"
      "Name={}\n"
      "Exec=sh -c \"exec \\\\\"\\\\$(dirname -- \\\\\"\\\\$1\\\\\")/{}\\\\\"\" sh %k\n"
      "Icon={}\n"
      "Terminal=false\n"
      "Categories=Game;\n",
      project.title.value, project.id.value, project.id.value);
}

std::vector<PackedFile> collect(const vole::Project& project, const std::string& program) {
  const std::string& id = project.id.value;
  std::vector<PackedFile> files;
  files.push_back({id, bytes_of(start_script(id)), true});
  files.push_back({id + ".desktop", bytes_of(desktop_entry(project)), true});
  files.push_back({"game/" + id, vole::read_bytes(program, std::size_t{1} << 30), true});
  for (const std::string& file : files_to_send(project.root))
    files.push_back(
        {"game/" + file, vole::read_bytes(vole::join_path(project.root, file), std::size_t{1} << 30)});
  if (!project.icon.value.empty())
    files.push_back({id + ".png", vole::read_bytes(vole::join_path(project.root, project.icon.value),
                                                   std::size_t{1} << 30)});
  const std::vector<SharedLibrary> libraries = libraries_to_carry(program);
  for (const SharedLibrary& library : libraries)
    files.push_back({"lib/" + library.name, vole::read_bytes(library.path, std::size_t{1} << 30), true});
  for (PackedFile& licence : licence_files(libraries))
    files.push_back({"licences/" + licence.path, std::move(licence.content)});
  return files;
}

}  // namespace

int package(const PackageOptions& options, const std::string& tool) {
  const vole::Project project = vole::read_project(vole::join_path(options.folder, "game.toml"));
  const std::string program =
      options.program.empty() ? build(options.folder, project.id.value, tool) : options.program;
  const std::string name = fmt::format("{}-{}-linux", project.id.value, project.version.value);
  std::vector<PackedFile> files = collect(project, program);
  for (PackedFile& file : files) file.path = name + "/" + file.path;
  const std::string path = vole::join_path(options.output, name + ".tar.gz");
  write_tarball(path, std::move(files));
  fmt::print("{}\n", path);
  return 0;
}
