// Makes a Level of what its file says.
#pragma once

#include <map>
#include <unordered_map>

#include "level_file.hpp"
#include "vole/base/csv.hpp"

namespace vole {

class LevelBuilder {
 public:
  // All must outlive the builder.
  LevelBuilder(Level& level, const LevelText& text, Loading& loading, Report& report)
      : level_(level), text_(text), loading_(loading), report_(report) {}

  // What is wrong goes to the report.
  void build();

 private:
  // What stands for a cell and is in no table: where first, and how often.
  struct Unknown {
    FilePosition first;
    std::int64_t times = 0;
  };
  // The rows of a layer, from wherever they are.
  struct Csv {
    std::string path, text;
  };

  void read_letters();
  void read_csv_files();
  void find_size();
  std::optional<IVec2> size_of(std::size_t layer);
  void expect_size(std::size_t layer, IVec2 size, std::string_view first);
  void add_layer(std::size_t index);
  void add_picture(const LayerText& text, LevelLayer& layer);
  void add_rows(const LayerText& text, LevelLayer& layer);
  void add_csv(const Csv& csv, const FilePosition& named, LevelLayer& layer);
  const Paint* paint_of_field(std::string_view field, const CsvReader& at);
  void report_unknown();
  void choose_edges(LevelLayer& layer);
  void add_solid();
  Paint paint_of(const Located<std::string>& written);

  Level& level_;
  const LevelText& text_;
  Loading& loading_;
  Report& report_;
  std::unordered_map<char32_t, Paint> letters_;
  std::map<std::string, Paint, std::less<>> fields_;  // of CSV, that were read
  std::vector<std::string> known_letters_;
  std::map<std::string, Unknown, std::less<>> unknown_letters_, unknown_fields_;
  std::map<std::size_t, Csv> csv_files_;  // by layer
};

// What of it are openings, lists of pieces, and how it goes on: in pieces.cpp.
void add_pieces(Level& level, const LevelText& text, Report& report);

}  // namespace vole
