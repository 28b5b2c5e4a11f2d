// A folder for any Linux of this kind of machine that has a C library as new as this one's: the program with all that is linked into
// it, and its files.
#include <fmt/core.h>

#include "build.hpp"
#include "licences.hpp"
#include "other_system.hpp"
#include "package_targets.hpp"

namespace {

constexpr std::size_t largest_file = std::size_t{1} << 30;

vole::Bytes bytes_of(std::string_view text) {
  return {text.begin(), text.end()};
}

std::string build_for_linux(const PackageWish& wish) {
  const std::string& id = wish.project.id.value;
  const OtherSystem linux_here = other_system("linux", wish.tool);
  if (!is_ready(linux_here)) set_up(linux_here);
  std::vector<std::string> configure = linux_here.configure;
  for (std::string& word : linux_here.prepare(linux_here)) configure.push_back(std::move(word));
  if (const std::string found = vole_cmake_folder(wish.tool); !found.empty())
    configure.push_back("-Dvole_DIR=" + found);
  return build_game({wish.options.folder, id, vole::join_path(wish.options.folder, "build/package"),
                     std::move(configure), id});
}

// Most games carry no libraries.
std::string start_script(const std::string& id, bool with_libraries) {
  return fmt::format(
      "#!/bin/sh\n"
      "# Starts the game{}.\n"
      "here=$(dirname -- \"$(readlink -f -- \"$0\")\")\n"
      "{}"
      "exec \"$here/game/{}\" \"$@\"\n",
      with_libraries ? " with the libraries that came along" : "",
      with_libraries ? "LD_LIBRARY_PATH=\"$here/lib${LD_LIBRARY_PATH:+:$LD_LIBRARY_PATH}\"\n"
                       "export LD_LIBRARY_PATH\n"
                     : "",
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

// Of many only the first.
std::string listed(const std::vector<std::string>& names) {
  constexpr std::size_t most = 6;
  std::string text;
  for (std::size_t i = 0; i < names.size() && i < most; ++i) text += (i == 0 ? "" : ", ") + names[i];
  return names.size() > most ? fmt::format("{} and {} more", text, names.size() - most) : text;
}

std::vector<PackedFile> collect(const vole::Project& project, const std::string& program,
                                const std::vector<CompiledIn>& compiled_in) {
  const std::string& id = project.id.value;
  const ProgramLibraries libraries = libraries_of(program);
  std::vector<PackedFile> files;
  files.push_back({id, bytes_of(start_script(id, !libraries.carried.empty())), true});
  files.push_back({id + ".desktop", bytes_of(desktop_entry(project)), true});
  files.push_back({"game/" + id, vole::read_bytes(program, largest_file), true});
  for (PackedFile& file : packed_game(project, "game/")) files.push_back(std::move(file));
  if (!project.icon.value.empty())
    files.push_back(
        {id + ".png", vole::read_bytes(vole::join_path(project.root, project.icon.value), largest_file)});
  for (const SharedLibrary& library : libraries.carried)
    files.push_back({"lib/" + library.name, vole::read_bytes(library.path, largest_file), true});
  for (PackedFile& licence : licence_files(libraries.carried, compiled_in))
    files.push_back({"licences/" + licence.path, std::move(licence.content)});
  fmt::print(stderr, "the program asks the system for {}\n", listed(libraries.of_the_system));
  return files;
}

}  // namespace

std::vector<std::string> package_for_linux(const PackageWish& wish) {
  std::string program = wish.options.program;
  std::vector<CompiledIn> compiled_in;
  if (program.empty()) {
    program = build_for_linux(wish);
    compiled_in = {{"SDL2", "libsdl2-dev"}, {"gcc", package_of_cpp_runtime()}};
  }
  const std::string name = package_name(wish.project, "linux");
  std::vector<PackedFile> files = collect(wish.project, program, compiled_in);
  for (PackedFile& file : files) file.path = name + "/" + file.path;
  std::string path = vole::join_path(wish.options.output, name + ".tar.gz");
  write_tarball(path, std::move(files));
  return {path};
}
