#include "vole/base/csv.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/utf8.hpp"

namespace vole {

CsvReader::CsvReader(std::string_view text, std::string_view file)
    : text_(text), file_(FilePosition::whole_file(file).file) {
  if (constexpr std::string_view mark = "\xef\xbb\xbf"; text_.starts_with(mark))
    text_.remove_prefix(mark.size());
  const std::size_t last = text_.find_last_not_of("\r\n");
  text_ = text_.substr(0, last == std::string_view::npos ? 0 : last + 1);
}

bool CsvReader::next_row() {
  if (begun_) {
    // What was not asked for is passed over, and checked all the same.
    while (row_goes_on_) next_field();
    if (at_ >= text_.size()) return false;
    ++at_;  // the line break
  } else if (text_.empty()) {
    return false;
  }
  begun_ = true;
  row_start_ = field_start_ = at_;
  ++line_;
  row_goes_on_ = true;
  return true;
}

bool CsvReader::next_field() {
  if (!row_goes_on_) return false;
  field_start_ = at_;
  if (at_ < text_.size() && text_[at_] == '"')
    read_quoted();
  else
    read_plain();
  if (field_.size() > longest_field)
    fail(field_start_, fmt::format("this field has more than {} bytes", longest_field));
  row_goes_on_ = at_ < text_.size() && text_[at_] == ',';
  if (row_goes_on_) ++at_;
  return true;
}

void CsvReader::read_plain() {
  std::size_t end = at_;
  while (end < text_.size() && text_[end] != ',' && text_[end] != '\n') {
    if (text_[end] == '"')
      fail(end, "a quote within a field", "put the whole field in quotes, and write the quote twice");
    ++end;
  }
  field_ = text_.substr(at_, end - at_);
  const bool ends_line = end == text_.size() || text_[end] == '\n';
  if (ends_line && field_.ends_with('\r')) field_.remove_suffix(1);
  at_ = end;
}

void CsvReader::read_quoted() {
  const std::size_t start = at_++;
  std::size_t part = at_;
  unquoted_.clear();
  while (true) {
    const std::size_t stop = text_.find_first_of("\"\n", at_);
    if (stop == std::string_view::npos || text_[stop] == '\n')
      fail(start, "this quote has no end on its line", "a field is on one line here");
    at_ = stop + 1;
    if (at_ >= text_.size() || text_[at_] != '"') break;
    unquoted_ += text_.substr(part, at_ - part);  // with one of the two quotes
    part = ++at_;
    if (unquoted_.size() > longest_field) break;
  }
  const std::string_view rest = text_.substr(part, at_ - 1 - part);
  if (unquoted_.empty()) {
    field_ = rest;
  } else {
    unquoted_ += rest;
    field_ = unquoted_;
  }
  if (text_.substr(at_).starts_with('\r') && (at_ + 1 == text_.size() || text_[at_ + 1] == '\n')) ++at_;
  if (field_.size() <= longest_field && at_ < text_.size() && text_[at_] != ',' && text_[at_] != '\n')
    fail(at_, "after a field in quotes comes a comma or the end of the line");
}

FilePosition CsvReader::where() const {
  int column = 1;
  for (std::string_view before = text_.substr(row_start_, std::min(field_start_, text_.size()) - row_start_);
       !before.empty(); ++column)
    next_letter(before);
  return {file_, line_, column};
}

std::int64_t CsvReader::rows_left() const {
  const std::string_view rest = text_.substr(std::min(at_, text_.size()));
  return std::count(rest.begin(), rest.end(), '\n') + (!begun_ && !text_.empty() ? 1 : 0);
}

void CsvReader::fail(std::size_t at, std::string text, std::string hint) const {
  int column = 1;
  for (std::string_view before = text_.substr(row_start_, at - row_start_); !before.empty(); ++column)
    next_letter(before);
  throw Error({file_, line_, column}, std::move(text), std::move(hint));
}

}  // namespace vole
