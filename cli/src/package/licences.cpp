#include "licences.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <set>
#include <sstream>

#include "header_libraries.hpp"
#include "process.hpp"
#include "vole/base/error.hpp"
#include "vole_licence.hpp"

namespace {

// Beginnings of the names of libraries that a plain desktop has, and that must be its own: they speak to its
// kernel, its drivers and its servers.
constexpr std::string_view of_the_desktop[] = {
    "linux-vdso",   "ld-linux",  "libc.so",    "libm.so",      "libdl.so",    "libpthread.so", "librt.so",
    "libresolv.so", "libnsl.so", "libutil.so", "libstdc++.so", "libgcc_s.so", "libX",          "libxcb",
    "libxkb",       "libICE",    "libSM",      "libwayland",   "libGL",       "libEGL",        "libdrm",
    "libgbm",       "libasound", "libpulse",   "libjack",      "libpipewire", "libdbus",       "libudev",
    "libsystemd",   "libcap.so", "libgcrypt",  "libgpg-error", "liblz4",      "liblzma",       "libzstd",
    "libbsd",       "libmd.so",  "libexpat",   "libffi",       "libz.so",     "libapparmor",   "libasyncns",
    "libsndfile",   "libFLAC",   "libvorbis",  "libogg",       "libopus",     "libmpg123",     "libmp3lame",
    "libglib",      "libpcre"};

bool desktop_has(std::string_view name) {
  return std::any_of(std::begin(of_the_desktop), std::end(of_the_desktop),
                     [name](std::string_view start) { return name.starts_with(start); });
}

// The package that a file was installed from, or an empty text. Merged /usr: the file may be listed under
// either name.
std::string package_of(const std::string& path) {
  std::vector<std::string> names{path, std::filesystem::canonical(path).string()};
  for (const std::string& name : std::vector<std::string>(names)) {
    if (name.starts_with("/usr/"))
      names.push_back(name.substr(4));
    else
      names.push_back("/usr" + name);
  }
  for (const std::string& name : names) {
    const ProcessResult found = run_process({"dpkg-query", "--search", name}, Complaints::dropped);
    const std::size_t end = found.output.find_first_of(":,");
    if (found.code == 0 && end != std::string::npos) return found.output.substr(0, end);
  }
  return {};
}

vole::Bytes licence_of_package(const std::string& what, const std::string& package) {
  const std::string file = "/usr/share/doc/" + package + "/copyright";
  if (package.empty() || !vole::file_exists(file))
    throw vole::Error(vole::FilePosition{}, fmt::format("the licence of {} was not found", what),
                      package.empty() ? "it is not from a Debian package" : "install the package " + package);
  return vole::read_bytes(file, 16u << 20);
}

}  // namespace

ProgramLibraries libraries_of(const std::string& program) {
  const ProcessResult listing = run_process({"ldd", program});
  if (listing.code != 0)
    throw vole::Error(vole::FilePosition::whole_file(program),
                      "is not a program whose libraries can be listed");
  ProgramLibraries libraries;
  std::istringstream lines(listing.output);
  for (std::string line; std::getline(lines, line);) {
    std::istringstream words(line);
    std::string name, arrow, path;
    words >> name >> arrow >> path;
    if (arrow != "=>") continue;
    if (desktop_has(name)) {
      if (!name.starts_with("linux-vdso")) libraries.of_the_system.push_back(name);
      continue;
    }
    if (path == "not")
      throw vole::Error(vole::FilePosition::whole_file(program),
                        fmt::format("needs {}, which is not installed", name));
    libraries.carried.push_back({name, path});
  }
  return libraries;
}

std::string package_of_cpp_runtime() {
  std::string path = run_process({"g++", "-print-file-name=libstdc++.a"}).output;
  while (path.ends_with('\n')) path.pop_back();
  return path.starts_with('/') ? package_of(path) : std::string();
}

std::vector<PackedFile> licence_files(const std::vector<SharedLibrary>& libraries,
                                      const std::vector<CompiledIn>& more) {
  std::vector<PackedFile> files;
  const std::string_view own = vole_licence();
  files.push_back({"vole.txt", vole::Bytes(own.begin(), own.end())});
  const auto add = [&files](const CompiledIn& part) {
    files.push_back({fmt::format("{}.txt", part.name), licence_of_package(part.name, part.package)});
  };
  for (const HeaderLibrary& library : header_libraries)
    add({std::string(library.name), std::string(library.package)});
  std::for_each(more.begin(), more.end(), add);
  std::set<std::string> packages;
  for (const SharedLibrary& library : libraries) {
    const std::string package = package_of(library.path);
    if (packages.insert(package).second)
      files.push_back({fmt::format("{}.txt", package), licence_of_package(library.name, package)});
  }
  return files;
}
