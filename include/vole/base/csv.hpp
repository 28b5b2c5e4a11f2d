// Comma-separated values as in RFC 4180, row by row and field by field, without a copy of what needs none.
//
//   CsvReader csv(text, "levels/beds-ground.csv");
//   while (csv.next_row())
//     while (csv.next_field()) take(csv.field());
//
// Fields may stand in quotes, and have commas and doubled quotes in them then. Lines end with CRLF or LF; empty lines at the
// end of the file are no rows.
#pragma once

#include <string>
#include <string_view>

#include "vole/base/error.hpp"

namespace vole {

class CsvReader {
 public:
  static constexpr std::size_t longest_field = 4096;  // bytes

  // The text must outlive the reader.
  CsvReader(std::string_view text, std::string_view file);

  // Goes to the next row; false when there is none.
  bool next_row();
  // Goes to the next field of the row; false when there is none. Throws Error for quotes that are not as they should be, a
  // line break within quotes, and a field that is too long.
  bool next_field();
  // Until the next call.
  std::string_view field() const { return field_; }
  // Of the field, or where the next would be.
  FilePosition where() const;
  int line() const { return line_; }

  // How many rows there are from here on.
  std::int64_t rows_left() const;

 private:
  void read_quoted();
  void read_plain();
  [[noreturn]] void fail(std::size_t at, std::string text, std::string hint = {}) const;

  std::string_view text_;  // without empty lines at its end
  std::shared_ptr<const std::string> file_;
  std::size_t at_ = 0;  // the next byte
  std::size_t row_start_ = 0;
  std::size_t field_start_ = 0;
  std::string_view field_;
  std::string unquoted_;
  int line_ = 0;
  bool begun_ = false;  // the first row
  bool row_goes_on_ = false;
};

}  // namespace vole
