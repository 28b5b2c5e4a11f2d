#include "tarball.hpp"

#include <archive.h>
#include <archive_entry.h>

#include <algorithm>
#include <memory>

#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace {

using Archive = std::unique_ptr<archive, decltype(&archive_write_free)>;
using Entry = std::unique_ptr<archive_entry, decltype(&archive_entry_free)>;

// 2000-01-01, so that the archive does not depend on when it was made.
constexpr time_t moment = 946684800;

void must(archive* out, int result, const std::string& path) {
  if (result < ARCHIVE_WARN)
    throw vole::Error(vole::FilePosition::whole_file(path),
                      std::string("cannot be written: ") + archive_error_string(out));
}

la_ssize_t append(archive*, void* packed, const void* data, std::size_t size) {
  static_cast<std::string*>(packed)->append(static_cast<const char*>(data), size);
  return static_cast<la_ssize_t>(size);
}

}  // namespace

void write_tarball(const std::string& path, std::vector<PackedFile> files) {
  std::sort(files.begin(), files.end(),
            [](const PackedFile& a, const PackedFile& b) { return a.path < b.path; });
  std::string packed;
  const Archive out(archive_write_new(), &archive_write_free);
  archive_write_add_filter_gzip(out.get());
  archive_write_set_filter_option(out.get(), "gzip", "timestamp", nullptr);
  archive_write_set_format_pax_restricted(out.get());
  must(out.get(), archive_write_open(out.get(), &packed, nullptr, append, nullptr), path);
  for (const PackedFile& file : files) {
    const Entry entry(archive_entry_new(), &archive_entry_free);
    archive_entry_set_pathname(entry.get(), file.path.c_str());
    archive_entry_set_size(entry.get(), static_cast<la_int64_t>(file.content.size()));
    archive_entry_set_filetype(entry.get(), AE_IFREG);
    archive_entry_set_perm(entry.get(), file.runs ? 0755 : 0644);
    archive_entry_set_mtime(entry.get(), moment, 0);
    must(out.get(), archive_write_header(out.get(), entry.get()), path);
    if (archive_write_data(out.get(), file.content.data(), file.content.size()) < 0)
      must(out.get(), ARCHIVE_FATAL, path);
  }
  must(out.get(), archive_write_close(out.get()), path);
  vole::write_whole(path, packed);
}
