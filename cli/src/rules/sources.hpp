// Everything that a game's own code says in quotes or as a generated name, to look for names in.
#pragma once

#include <string>
#include <string_view>
#include <vector>

class Sources {
 public:
  // `files` are below `root`; those that are code are read.
  Sources(const std::string& root, const std::vector<std::string>& files);

  static bool is_code(const std::string& file);
  bool any() const { return !text_.empty(); }

  bool quote(const std::string& name) const;
  // `scope` is "sheet", "font", "level" or "sound".
  bool mention(std::string_view scope, const std::string& name) const;

 private:
  // The text with no letter, digit or underscore after it.
  bool has_word(const std::string& word) const;

  std::string text_;
};
