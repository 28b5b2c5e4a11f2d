#include "vole/base/watch.hpp"

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <filesystem>
#include <utility>

#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/paths.hpp"

#if defined(__linux__)
#include <sys/inotify.h>
#include <unistd.h>

#include <array>
#include <map>
#endif

namespace vole {
namespace {

namespace fs = std::filesystem;

// Two names of one file are the same here, and so is where a link leads to.
bool counts(const WatchedFolders& watched, const std::string& file) {
  if (file.substr(file.rfind('/') + 1).starts_with('.')) return false;
  return std::none_of(watched.except.begin(), watched.except.end(), [&](const std::string& own) {
    std::error_code missing;
    return fs::equivalent(to_path(file), to_path(own), missing);
  });
}

// Hashes the names and stamps of all files, at most ten times a second.
class LookingWatch final : public FileWatch {
 public:
  explicit LookingWatch(WatchedFolders folders) : folders_(std::move(folders)), seen_(look()) {}

  bool changed() override {
    const auto now = std::chrono::steady_clock::now();
    if (now - looked_ < std::chrono::milliseconds(100)) return false;
    looked_ = now;
    const std::uint64_t seen = look();
    return std::exchange(seen_, seen) != seen;
  }

 private:
  void add_file(const std::string& path, Hash& hash) const {
    if (!counts(folders_, path)) return;
    hash.add(std::string_view(path));
    hash.add(file_stamp(path));
  }

  std::uint64_t look() const {
    Hash hash;
    for (const std::string& folder : folders_.deep) {
      try {
        if (folder_exists(folder))
          for (const std::string& file : list_files(folder)) add_file(join_path(folder, file), hash);
      } catch (const Error&) {
        // Changed while it was read: the next look sees it whole.
        hash.add(std::uint64_t{1});
      }
    }
    for (const std::string& folder : folders_.shallow) {
      std::error_code failed;
      std::vector<std::string> files;
      for (fs::directory_iterator it(folder, failed), end; !failed && it != end; it.increment(failed))
        if (std::error_code unknown; it->is_regular_file(unknown))
          files.push_back(it->path().generic_string());
      std::sort(files.begin(), files.end());
      for (const std::string& file : files) add_file(file, hash);
    }
    return hash.value();
  }

  WatchedFolders folders_;
  std::uint64_t seen_ = 0;
  std::chrono::steady_clock::time_point looked_;
};

#if defined(__linux__)

// inotify(7): one watch for each folder.
class NoticedWatch final : public FileWatch {
 public:
  explicit NoticedWatch(WatchedFolders folders)
      : folders_(std::move(folders)), file_(inotify_init1(IN_NONBLOCK | IN_CLOEXEC)) {
    add_all();
  }
  ~NoticedWatch() override {
    if (file_ >= 0) close(file_);
  }
  NoticedWatch(const NoticedWatch&) = delete;
  NoticedWatch& operator=(const NoticedWatch&) = delete;

  bool usable() const { return file_ >= 0 && !failed_; }

  bool changed() override {
    alignas(inotify_event) std::array<char, 16384> buffer{};
    bool any = false;
    for (ssize_t count = 0; (count = ::read(file_, buffer.data(), buffer.size())) > 0;) {
      for (ssize_t at = 0; at < count;) {
        const auto* event = reinterpret_cast<const inotify_event*>(buffer.data() + at);
        if (look_at(*event)) any = true;
        at += static_cast<ssize_t>(sizeof(inotify_event) + event->len);
      }
    }
    return any;
  }

 private:
  static constexpr std::uint32_t mask =
      IN_CLOSE_WRITE | IN_MOVED_TO | IN_MOVED_FROM | IN_CREATE | IN_DELETE | IN_DELETE_SELF | IN_ONLYDIR;

  void add_all() {
    for (const std::string& folder : folders_.deep) add_deep(folder);
    for (const std::string& folder : folders_.shallow) add(folder, false);
  }

  void add(const std::string& folder, bool deep) {
    const int watch = inotify_add_watch(file_, folder.c_str(), mask);
    if (watch >= 0)
      watched_[watch] = {folder, deep};
    else if (errno == ENOSPC)
      failed_ = true;
  }

  // Links to folders are not followed, so a ring of them is no trouble.
  void add_deep(const std::string& folder) {
    add(folder, true);
    std::error_code failed;
    fs::recursive_directory_iterator it(folder, failed);
    for (const fs::recursive_directory_iterator end; !failed && it != end; it.increment(failed))
      if (std::error_code unknown; it->is_directory(unknown) && !it->is_symlink(unknown))
        add(it->path().generic_string(), true);
  }

  // Whether it is a change that counts.
  bool look_at(const inotify_event& event) {
    if ((event.mask & IN_Q_OVERFLOW) != 0) {
      add_all();
      return true;
    }
    const auto found = watched_.find(event.wd);
    if (found == watched_.end() || event.len == 0) return true;
    const std::string path = join_path(found->second.folder, event.name);
    if ((event.mask & IN_ISDIR) != 0 && (event.mask & (IN_CREATE | IN_MOVED_TO)) != 0)
      add_folder(path, found->second.deep);
    return counts(folders_, path);
  }

  void add_folder(const std::string& folder, bool in_deep) {
    if (in_deep) return add_deep(folder);
    for (const std::string& deep : folders_.deep)
      if (deep == folder) add_deep(deep);
  }

  struct Watched {
    std::string folder;
    bool deep = false;
  };
  WatchedFolders folders_;
  int file_ = -1;
  bool failed_ = false;  // the system allows no more watches
  std::map<int, Watched> watched_;
};

#endif

}  // namespace

std::unique_ptr<FileWatch> watch_files_by_looking(const WatchedFolders& folders) {
  return std::make_unique<LookingWatch>(folders);
}

std::unique_ptr<FileWatch> watch_files(const WatchedFolders& folders) {
#if defined(__EMSCRIPTEN__)
  // Nobody edits the files of a page while it is open.
  struct NothingChanges final : FileWatch {
    bool changed() override { return false; }
  };
  static_cast<void>(folders);
  return std::make_unique<NothingChanges>();
#else
#if defined(__linux__)
  auto noticed = std::make_unique<NoticedWatch>(folders);
  if (noticed->usable()) return noticed;
#endif
  return watch_files_by_looking(folders);
#endif
}

}  // namespace vole
