// What is placed in a level, once its cells are there: things, zones, paths.
#pragma once

#include <map>

#include "level_file.hpp"

namespace vole {

class PlaceBuilder {
 public:
  // All must outlive the builder.
  PlaceBuilder(Level& level, const LevelText& text, Report& report)
      : level_(level), text_(text), report_(report) {}

  // What is wrong goes to the report.
  void build();

 private:
  void add_place(const PlaceText& text);
  void add_zone(const ZoneText& text);
  void add_path(const PathText& text);
  void add_scatter(const ScatterText& text);
  Vec2 in_cell(IVec2 cell, Anchor spot) const;

  Level& level_;
  const LevelText& text_;
  Report& report_;
  std::map<std::string, FilePosition> named_places_;
};

}  // namespace vole
