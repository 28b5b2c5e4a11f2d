// What it takes to build for Windows: the compiler mingw-w64, and SDL, which is built from Debian's own source package.
#include <fmt/core.h>

#include <filesystem>

#include "build.hpp"
#include "other_system.hpp"
#include "process.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Error;
using vole::FilePosition;
using vole::join_path;

// Where Debian's packages come from on this machine, as places of source packages.
std::string places_of_sources() {
  const std::string key_ring = "/usr/share/keyrings/debian-archive-keyring.gpg";
  const std::string trust = vole::file_exists(key_ring) ? fmt::format("[signed-by={}] ", key_ring) : "";
  return run_process({"apt-get", "indextargets", "--format",
                      fmt::format("deb-src {}$(REPO_URI) $(RELEASE) $(COMPONENT)", trust),
                      "Created-By: Packages", "Origin: Debian"})
      .output;
}

// With lists of its own below the folder, so that what the machine is set up to use stays as it is.
std::vector<std::string> apt_get(const std::string& folder, const std::vector<std::string>& more) {
  std::vector<std::string> words{"env", "-C", folder, "apt-get", "-qq"};
  for (const std::string& option :
       {fmt::format("Dir::Etc::sourcelist={}/sources.list", folder),
        std::string("Dir::Etc::sourceparts=/dev/null"), fmt::format("Dir::State::lists={}/lists", folder),
        fmt::format("Dir::Cache={}/cache", folder), std::string("APT::Sandbox::User=root"),
        std::string("APT::Update::Error-Mode=any")}) {
    words.emplace_back("-o");
    words.push_back(option);
  }
  words.insert(words.end(), more.begin(), more.end());
  return words;
}

std::string description_file(const std::string& folder) {
  for (const std::string& file : vole::list_files(folder))
    if (file.ends_with(".dsc")) return join_path(folder, file);
  throw Error(FilePosition::whole_file(folder), "the source package did not arrive",
              "look whether this machine reaches Debian's archive, and run this again");
}

// apt checks the signatures.
void fetch_sources(const std::string& folder, const std::string& source) {
  const std::string places = places_of_sources();
  if (places.empty())
    throw Error(FilePosition{}, "this machine does not know where Debian's source packages are",
                fmt::format("put SDL 2.26 or later, unpacked, into {}", source));
  fs::create_directories(join_path(folder, "lists/partial"));
  fs::create_directories(join_path(folder, "cache"));
  vole::write_whole(join_path(folder, "sources.list"), places);
  fmt::print(stderr, "fetching the sources of SDL ...\n");
  must_run(apt_get(folder, {"update"}), "looking for source packages");
  must_run(apt_get(folder, {"source", "--download-only", "libsdl2"}), "fetching the sources of SDL");
  const std::string unpacked = source + ".part";
  must_run({"dpkg-source", "--no-check", "-x", description_file(folder), unpacked},
           "unpacking the sources of SDL");
  fs::rename(unpacked, source);
}

// Only what the window host uses, and sound.
void build_sdl(const OtherSystem& windows, const std::string& installed) {
  const std::string work = join_path(windows.folder, "sdl-work"), source = join_path(work, "source"),
                    build = join_path(work, "build");
  if (!vole::file_exists(join_path(source, "CMakeLists.txt"))) {
    fs::remove_all(work);
    fetch_sources(work, source);
  }
  std::vector<std::string> words = windows.configure;
  words.insert(words.end(), {"-C", windows.source + "/hosts/sdl/build_options.cmake",
                             "-DCMAKE_INSTALL_PREFIX=" + installed, "-DCMAKE_C_FLAGS_RELEASE=-O2 -DNDEBUG"});
  fmt::print(stderr, "building SDL for Windows ...\n");
  must_configure(words, source, build, "configuring SDL");
  must_build(build, "building SDL");
  must_run({"cmake", "--install", build}, "installing SDL");
  vole::write_whole(join_path(installed, "ready"), std::string_view("whole\n"));
  fs::remove_all(work);
}

std::vector<std::string> with_sdl(const OtherSystem& windows) {
  const std::string installed = join_path(windows.folder, "sdl");
  if (!vole::file_exists(join_path(installed, "ready"))) build_sdl(windows, installed);
  return {fmt::format("-DSDL2_DIR={}/lib/cmake/SDL2", installed)};
}

}  // namespace

OtherSystem windows_system(const std::string& source) {
  return {"windows",
          {"cmake", fmt::format("-DCMAKE_TOOLCHAIN_FILE={}/cmake/windows.cmake", source),
           "-DCMAKE_BUILD_TYPE=Release", "-DCMAKE_CXX_FLAGS_RELEASE=-O2 -DNDEBUG",
           "-DCMAKE_EXE_LINKER_FLAGS_RELEASE=-s"},
          {{"x86_64-w64-mingw32-g++-posix", "g++-mingw-w64-x86-64-posix"}, {"dpkg-source", "dpkg-dev"}},
          &with_sdl};
}
