#include "built_sdl.hpp"

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/file.h>
#include <unistd.h>

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

// Others that want the same wait meanwhile.
class FolderLock {
 public:
  explicit FolderLock(const std::string& folder) {
    fs::create_directories(folder);
    file_ = ::open(join_path(folder, "lock").c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0666);
    if (file_ < 0 || ::flock(file_, LOCK_EX) != 0)
      throw Error(FilePosition::whole_file(folder), "cannot be written to",
                  "set XDG_CACHE_HOME to a folder that may be written");
  }
  ~FolderLock() {
    if (file_ >= 0) ::close(file_);
  }
  FolderLock(const FolderLock&) = delete;
  FolderLock& operator=(const FolderLock&) = delete;

 private:
  int file_ = -1;
};

// Only what the window host uses, and sound.
void build_sdl(const OtherSystem& system, const std::string& installed) {
  const std::string work = join_path(system.folder, "sdl-work"), source = join_path(work, "source"),
                    build = join_path(work, "build");
  if (!vole::file_exists(join_path(source, "CMakeLists.txt"))) {
    fs::remove_all(work);
    fetch_sources(work, source);
  }
  std::vector<std::string> words = system.configure;
  words.insert(words.end(),
               {"-C", fmt::format("{}/hosts/sdl/build_options_{}.cmake", system.source, system.name),
                "-DCMAKE_INSTALL_PREFIX=" + installed, "-DCMAKE_C_FLAGS_RELEASE=-O2 -DNDEBUG"});
  fmt::print(stderr, "building SDL for \"{}\", once ...\n", system.name);
  must_configure(words, source, build, "configuring SDL");
  must_build(build, "building SDL");
  must_run({"cmake", "--install", build}, "installing SDL");
  vole::write_whole(join_path(installed, "ready"), std::string_view("whole\n"));
  fs::remove_all(work);
}

}  // namespace

std::vector<std::string> with_built_sdl(const OtherSystem& system) {
  const std::string installed = join_path(system.folder, "sdl");
  const auto is_ready = [&] { return vole::file_exists(join_path(installed, "ready")); };
  if (!is_ready()) {
    const FolderLock lock(system.folder);
    if (!is_ready()) build_sdl(system, installed);
  }
  return {fmt::format("-DSDL2_DIR={}/lib/cmake/SDL2", installed)};
}
