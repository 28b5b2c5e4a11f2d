// CSV, against a plain way to write and read it.
#include "vole/base/csv.hpp"

#include <fmt/core.h>

#include "support.hpp"
#include "vole/base/random.hpp"

namespace {

using Rows = std::vector<std::vector<std::string>>;

Rows read_all(const std::string& text) {
  vole::CsvReader csv(text, "a.csv");
  Rows rows;
  const std::int64_t promised = csv.rows_left();
  while (csv.next_row()) {
    rows.emplace_back();
    while (csv.next_field()) rows.back().emplace_back(csv.field());
  }
  REQUIRE(promised == static_cast<std::int64_t>(rows.size()));
  return rows;
}

std::string written(const std::string& field, vole::Random& chance) {
  if (field.find_first_of(",\"\r") == std::string::npos && chance.chance(0.7f)) return field;
  std::string text = "\"";
  for (const char c : field) text.append(c == '"' ? 2 : 1, c);
  text += '"';
  return text;
}

std::string wrong(const std::string& text) {
  try {
    read_all(text);
    return {};
  } catch (const vole::Error& error) {
    return error.what();
  }
}

}  // namespace

TEST_CASE("CSV that was written is read as it was meant") {
  vole::Random chance(5);
  for (int round = 0; round < 3000; ++round) {
    Rows rows(chance.below(6));
    std::string text = chance.chance(0.2f) ? "\xef\xbb\xbf" : "";
    const std::string line_break = chance.chance(0.5f) ? "\r\n" : "\n";
    for (std::size_t y = 0; y < rows.size(); ++y) {
      const std::uint32_t fields = chance.below(5) + 1;
      for (std::uint32_t i = 0; i < fields; ++i) {
        std::string field;
        for (std::uint32_t length = chance.below(5); length > 0; --length)
          field += "ab ,\"7\xc3\xa9"[chance.below(7)];
        if (chance.chance(0.01f)) field.assign(vole::CsvReader::longest_field, '"');
        // A line of nothing at the end of a file is no row.
        if (fields == 1 && field.empty()) field += 'x';
        rows[y].push_back(field);
        if (i > 0) text += ',';
        text += written(field, chance);
      }
      if (y + 1 < rows.size() || chance.chance(0.5f)) text += line_break;
    }
    CAPTURE(text);
    REQUIRE(read_all(text) == rows);
  }
}

TEST_CASE("what is wrong with CSV is reported with its line and column") {
  CHECK(wrong("a,b\nc,\"d\n") ==
        "a.csv:2:3: error: this quote has no end on its line; a field is on one line here");
  CHECK(wrong("a,\xc3\xa9,b\"c") ==
        "a.csv:1:6: error: a quote within a field; put the whole field in quotes, and write the quote twice");
  CHECK(wrong("\"a\"b,c") ==
        "a.csv:1:4: error: after a field in quotes comes a comma or the end of the line");
  CHECK(wrong("a\n\nb,\"\"\"") ==
        "a.csv:3:3: error: this quote has no end on its line; a field is on one line here");
  const std::string megabyte(1'000'000, 'x');
  CHECK(wrong(fmt::format("a,{}", megabyte)) == "a.csv:1:3: error: this field has more than 4096 bytes");
  CHECK(wrong(fmt::format("\"{}\"", megabyte)) == "a.csv:1:1: error: this field has more than 4096 bytes");
  CHECK(wrong(std::string(1'000'001, '"')) == "a.csv:1:1: error: this field has more than 4096 bytes");
  // Also in what nobody asked for.
  vole::CsvReader csv("a,b\"c\nd", "a.csv");
  csv.next_row();
  CHECK_THROWS_AS(csv.next_row(), vole::Error);
}
