// A folder for any Linux of this kind of machine: the program, its files, the libraries that a desktop may lack.
#include <fmt/core.h>

#include "build.hpp"
#include "licences.hpp"
#include "package_targets.hpp"

namespace {

vole::Bytes bytes_of(std::string_view text) {
  return {text.begin(), text.end()};
}

std::string build_for_linux(const PackageWish& wish) {
  const std::string& id = wish.project.id.value;
  std::vector<std::string> configure{"cmake", "-DCMAKE_BUILD_TYPE=Release"};
  if (const std::string found = vole_cmake_folder(wish.tool); !found.empty())
    configure.push_back("-Dvole_DIR=" + found);
  return build_game({wish.options.folder, id, vole::join_path(wish.options.folder, "build/package"),
                     std::move(configure), id});
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
  for (PackedFile& file : packed_game(project, "game/")) files.push_back(std::move(file));
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

std::vector<std::string> package_for_linux(const PackageWish& wish) {
  const std::string program = wish.options.program.empty() ? build_for_linux(wish) : wish.options.program;
  const std::string name = package_name(wish.project, "linux");
  std::vector<PackedFile> files = collect(wish.project, program);
  for (PackedFile& file : files) file.path = name + "/" + file.path;
  std::string path = vole::join_path(wish.options.output, name + ".tar.gz");
  write_tarball(path, std::move(files));
  return {path};
}
