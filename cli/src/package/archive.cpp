#include "archive.hpp"

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
  const auto* const bytes = static_cast<const unsigned char*>(data);
  static_cast<vole::Bytes*>(packed)->insert(static_cast<vole::Bytes*>(packed)->end(), bytes, bytes + size);
  return static_cast<la_ssize_t>(size);
}

void add(archive* out, const PackedFile& file, const std::string& path) {
  const Entry entry(archive_entry_new(), &archive_entry_free);
  archive_entry_set_pathname(entry.get(), file.path.c_str());
  archive_entry_set_size(entry.get(), static_cast<la_int64_t>(file.content.size()));
  archive_entry_set_filetype(entry.get(), AE_IFREG);
  archive_entry_set_perm(entry.get(), file.runs ? 0755 : 0644);
  archive_entry_set_mtime(entry.get(), moment, 0);
  if (archive_write_header(out, entry.get()) < ARCHIVE_WARN)
    throw vole::Error(vole::FilePosition::whole_file(file.path),
                      std::string("cannot be packed: ") + archive_error_string(out),
                      "a file's name has at most 100 bytes, its folder's path at most 155");
  if (archive_write_data(out, file.content.data(), file.content.size()) < 0) must(out, ARCHIVE_FATAL, path);
}

// `choose` sets the format and the filter.
template <class Choose>
vole::Bytes packed(const std::string& path, std::vector<PackedFile> files, const Choose& choose) {
  std::sort(files.begin(), files.end(),
            [](const PackedFile& a, const PackedFile& b) { return a.path < b.path; });
  vole::Bytes bytes;
  const Archive out(archive_write_new(), &archive_write_free);
  choose(out.get());
  archive_write_set_bytes_in_last_block(out.get(), 1);
  must(out.get(), archive_write_open(out.get(), &bytes, nullptr, append, nullptr), path);
  for (const PackedFile& file : files) add(out.get(), file, path);
  must(out.get(), archive_write_close(out.get()), path);
  return bytes;
}

void use_gzip(archive* out) {
  archive_write_add_filter_gzip(out);
  archive_write_set_filter_option(out, "gzip", "timestamp", nullptr);
}

}  // namespace

void write_tarball(const std::string& path, std::vector<PackedFile> files) {
  vole::write_whole(path, packed(path, std::move(files), [](archive* out) {
                      use_gzip(out);
                      archive_write_set_format_pax_restricted(out);
                    }));
}

void write_zip(const std::string& path, std::vector<PackedFile> files) {
  vole::write_whole(path, packed(path, std::move(files), [](archive* out) {
                      archive_write_set_format_zip(out);
                      archive_write_set_options(out, "zip:hdrcharset=UTF-8");
                    }));
}

vole::Bytes tar_of(const std::string& path, std::vector<PackedFile> files) {
  return packed(path, std::move(files), [](archive* out) { archive_write_set_format_ustar(out); });
}

bool is_package(const std::string& path) {
  constexpr int most_files = 100'000;
  const std::unique_ptr<archive, decltype(&archive_read_free)> in(archive_read_new(), &archive_read_free);
  archive_read_support_filter_gzip(in.get());
  archive_read_support_format_tar(in.get());
  archive_read_support_format_zip(in.get());
  if (archive_read_open_filename(in.get(), path.c_str(), 65536) != ARCHIVE_OK) return false;
  archive_entry* entry = nullptr;
  for (int i = 0; i < most_files && archive_read_next_header(in.get(), &entry) == ARCHIVE_OK; ++i)
    if (const char* const name = archive_entry_pathname(entry))
      if (std::string_view(name).ends_with("licences/vole.txt")) return true;
  return false;
}

std::size_t gzipped_size(const vole::Bytes& bytes) {
  return packed("", {{"all", bytes}},
                [](archive* out) {
                  use_gzip(out);
                  archive_write_set_format_raw(out);
                })
      .size();
}
