#include "check_rules.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <filesystem>
#include <functional>

#include "dead_rules.hpp"
#include "game_files.hpp"
#include "names_header.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/level/level.hpp"
#include "vole/world/sprite.hpp"

namespace {

using vole::Catalog;
using vole::Error;
using vole::FilePosition;
using vole::Severity;

const std::vector<std::string> all_rules{"unused-file", "uneven-frames", "empty-frame", "hidden-name",
                                         "case-clash",  "wrong-case",    "over-limit",  "repeated-frame",
                                         "dead-rule",   "unplayed-clip", "unset-fact",  "jumping-frame"};

// Everything that the game's own code says in quotes or as a generated name, to look for names in.
class Sources {
 public:
  explicit Sources(const std::string& root, const std::vector<std::string>& files) {
    for (const std::string& file : files) {
      if (!is_code(file)) continue;
      try {
        text_ += vole::read_text(vole::join_path(root, file), std::size_t{16} << 20) + "\n";
      } catch (const Error&) {
        // What cannot be read says nothing.
      }
    }
  }

  static bool is_code(const std::string& file) {
    return std::any_of(endings.begin(), endings.end(), [&](auto ending) { return file.ends_with(ending); });
  }
  bool any() const { return !text_.empty(); }

  bool quote(const std::string& name) const {
    return text_.find(fmt::format("\"{}\"", name)) != std::string::npos;
  }
  // `scope` is "sheet", "font", "level" or "sound".
  bool mention(std::string_view scope, const std::string& name) const {
    return quote(name) || has_word(fmt::format("{}::{}", scope, cpp_identifier(name)));
  }

 private:
  static constexpr std::array<std::string_view, 6> endings{".cpp", ".hpp", ".cc", ".cxx", ".h", ".hxx"};

  // The text with no letter, digit or underscore after it.
  bool has_word(const std::string& word) const {
    for (std::size_t at = text_.find(word); at != std::string::npos; at = text_.find(word, at + 1)) {
      const char after = at + word.size() < text_.size() ? text_[at + word.size()] : ' ';
      if (!std::isalnum(static_cast<unsigned char>(after)) && after != '_') return true;
    }
    return false;
  }

  std::string text_;
};

class RuleChecker {
 public:
  RuleChecker(Catalog& catalog, const vole::Project& project, const std::set<std::string>& named,
              vole::Report& report)
      : catalog_(catalog),
        project_(project),
        named_(named),
        files_(files_of_game(catalog.root())),
        sources_(catalog.root(), files_),
        allowances_(catalog.root(), project, report) {}

  std::vector<Finding> run() {
    find_unused_files();
    find_empty_frames();
    find_hidden_names();
    find_case_clashes();
    find_wrong_cases();
    find_what_is_over_limits();
    each_sheet([this](const vole::Sheet& sheet, const std::string& file) { check_animation(sheet, file); });
    return std::move(findings_);
  }

 private:
  void add(const std::string& rule, const std::string& file, std::string text, std::string hint = {},
           const FilePosition& where = {}) {
    if (allowances_.allowed(file, rule)) return;
    Finding finding;
    finding.rule = rule;
    finding.problem.where =
        where.file ? where : FilePosition::whole_file(vole::join_path(catalog_.root(), file));
    finding.problem.severity = Severity::warning;
    finding.problem.text = std::move(text);
    finding.problem.hint = std::move(hint);
    findings_.push_back(std::move(finding));
  }

  // The path below the game's folder.
  std::string relative(const std::string& path) const {
    return path.starts_with(catalog_.root() + "/") ? path.substr(catalog_.root().size() + 1) : path;
  }

  template <class T>
  void use(const std::string& name, std::set<std::string>& used) {
    if (!catalog_.has<T>(name)) return;
    try {
      for (const std::string& file : catalog_.files_of(catalog_.get<T>(name))) used.insert(relative(file));
    } catch (const Error&) {
      // Broken, and told so; whether somebody uses it is not the question now.
    }
  }

  template <class T>
  void use_mentioned(const Sources& sources, std::string_view scope, std::set<std::string>& used) {
    for (const std::string& name : catalog_.names<T>())
      if (sources.mention(scope, name) ||
          named_.count(fmt::format("{} {}", vole::AssetType<T>::word, name)) != 0)
        use<T>(name, used);
  }

  void find_unused_files() {
    const Sources& sources = sources_;
    if (!sources.any()) return;  // without the code nobody can say what it uses
    std::set<std::string> used{project_.icon.value};
    use_mentioned<vole::Level>(sources, "level", used);
    use_mentioned<vole::Sheet>(sources, "sheet", used);
    use_mentioned<vole::Font>(sources, "font", used);
    use_mentioned<vole::Tileset>(sources, "tileset", used);
    use_mentioned<vole::Picture>(sources, "sheet", used);
    for (const std::string& file : files_) {
      const bool sound = file.ends_with(".wav") || file.ends_with(".ogg");
      if (file.starts_with("assets/") && sound && sources.mention("sound", file.substr(7, file.size() - 11)))
        used.insert(file);
    }
    for (const std::string& file : files_) {
      const bool asset = file.starts_with("assets/") || file.starts_with("levels/");
      if (!asset || used.count(file) != 0 || Sources::is_code(file) || is_broken(file)) continue;
      add("unused-file", file, "nobody uses this file: no kind, level or code names it");
    }
  }

  // A file of an asset that cannot be loaded is reported already.
  bool is_broken(const std::string& file) {
    const auto breaks = [&]<class T>(T*, std::string_view folder, std::string_view ending) {
      if (!file.starts_with(folder) || !file.ends_with(ending)) return false;
      try {
        catalog_.get<T>(file.substr(folder.size(), file.size() - folder.size() - ending.size()));
      } catch (const Error&) {
        return true;
      }
      return false;
    };
    return breaks(static_cast<vole::Sheet*>(nullptr), "assets/", ".sheet.toml") ||
           breaks(static_cast<vole::Tileset*>(nullptr), "assets/", ".tileset.toml") ||
           breaks(static_cast<vole::Font*>(nullptr), "assets/", ".font.toml") ||
           breaks(static_cast<vole::Picture*>(nullptr), "assets/", ".png") ||
           breaks(static_cast<vole::Level*>(nullptr), "levels/", ".level.toml");
  }

  // Calls visit(sheet, its file) for each sheet that can be loaded.
  void each_sheet(const std::function<void(const vole::Sheet&, const std::string&)>& visit) {
    for (const std::string& name : catalog_.loose_names<vole::Sheet>()) {
      try {
        const auto sheet = catalog_.get<vole::Sheet>(name);
        const std::string toml = "assets/" + name + ".sheet.toml";
        visit(*sheet,
              vole::file_exists(vole::join_path(catalog_.root(), toml)) ? toml : "assets/" + name + ".png");
      } catch (const Error&) {
      }
    }
  }

  static bool shows_nothing(const vole::Frame& frame) {
    for (int y = frame.area.top(); y < frame.area.bottom(); ++y)
      for (int x = frame.area.left(); x < frame.area.right(); ++x)
        if (frame.picture->row(y)[x].a != 0) return false;
    return true;
  }

  // A font's frames are letters, and those beyond its text or for a blank are empty with good reason.
  static std::set<std::size_t> blanks_of(const vole::Sheet& sheet) {
    std::set<std::size_t> blanks;
    if (!sheet.font) return blanks;
    for (std::size_t i = 0; i < sheet.frames.size(); ++i) blanks.insert(i);
    const auto columns = static_cast<std::size_t>(std::max(1, sheet.columns));
    for (std::size_t row = 0; row < sheet.font->glyphs.size(); ++row) {
      std::string_view text = sheet.font->glyphs[row];
      for (std::size_t i = row * columns; !text.empty(); ++i)
        if (vole::next_letter(text) != U' ') blanks.erase(i);
    }
    return blanks;
  }

  void find_empty_frames() {
    const std::set<std::string> others = pictures_of_others(catalog_);
    each_sheet([&](const vole::Sheet& sheet, const std::string& file) {
      if (file.ends_with(".png") && others.count(sheet.name) != 0) return;
      std::string empty;
      int count = 0;
      const std::set<std::size_t> blanks = blanks_of(sheet);
      for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
        if (blanks.count(i) != 0 || !shows_nothing(sheet.frames[i])) continue;
        if (++count <= 8)
          empty += fmt::format("{}{}", count > 1 ? ", " : "",
                               sheet.frame_names.empty() ? std::to_string(i) : sheet.frame_names[i]);
      }
      if (count > 8) empty += fmt::format(" and {} more", count - 8);
      if (count > 0)
        add("empty-frame", file,
            fmt::format("frame{} {} of \"{}\" show{} nothing", count == 1 ? "" : "s", empty, sheet.name,
                        count == 1 ? "s" : ""));
    });
  }

  void find_hidden_names() {
    for (const std::string& name : catalog_.loose_names<vole::Sheet>()) {
      const std::string file = "assets/" + name + ".sheet.toml";
      const std::string picture = "assets/" + name + ".png";
      const bool both = exists(file) && exists(picture);
      if (both) {
        std::set<std::string> used;
        use<vole::Sheet>(name, used);
        if (!used.empty() && used.count(picture) == 0)
          add("hidden-name", file,
              fmt::format("the sheet \"{}\" hides the picture \"{}.png\" beside it, which it does not use",
                          name, name),
              "name one of them otherwise");
      }
      for (const std::string& packed : vole::AssetType<vole::Sheet>::packed_names(catalog_))
        if (packed == name)
          add("hidden-name", exists(file) ? file : picture,
              fmt::format("hides the sheet \"{}\" of an atlas", name),
              "pack the atlas again, or leave one out");
    }
    for (const std::string& name : catalog_.loose_names<vole::Font>()) {
      const std::string font = "assets/" + name + ".font.toml", sheet = "assets/" + name + ".sheet.toml";
      if (exists(font) && exists(sheet))
        add("hidden-name", font, fmt::format("the font \"{}\" hides the one in {}.sheet.toml", name, name));
    }
  }

  bool exists(const std::string& file) const {
    return std::binary_search(files_.begin(), files_.end(), file);
  }

  void find_case_clashes() {
    std::map<std::string, std::string> seen;
    for (const std::string& file : files_) {
      const auto [found, is_new] = seen.emplace(vole::lower_case(file), file);
      if (!is_new)
        add("case-clash", file, fmt::format("differs from {} by letter case only", found->second),
            "some systems take them for one file");
    }
  }

  // Where letter case does not count a wrong one is found all the same; where it counts, the game then fails.
  void find_wrong_cases() {
    std::map<std::string, std::string> by_lower;
    for (const std::string& file : files_) by_lower.emplace(vole::lower_case(file), file);
    const auto look = [&]<class T>(T*) {
      for (const std::string& name : catalog_.loose_names<T>()) {
        std::set<std::string> used;
        use<T>(name, used);
        for (const std::string& file : used) {
          const auto found = by_lower.find(vole::lower_case(file));
          if (!exists(file) && found != by_lower.end())
            add("wrong-case", file, fmt::format("is named so, but the file is {}", found->second),
                "on other systems it will not be found");
        }
      }
    };
    look(static_cast<vole::Sheet*>(nullptr));
    look(static_cast<vole::Tileset*>(nullptr));
    look(static_cast<vole::Level*>(nullptr));
  }

  void check_animation(const vole::Sheet& sheet, const std::string& file) {
    for (const vole::Clip& clip : sheet.clips) {
      find_repeated_frame(clip, file);
      find_jump(sheet, clip, file);
    }
    if (sheet.rules.empty()) return;
    find_dead_rules(sheet, file);
    find_unset_facts(sheet, file);
    find_unplayed_clips(sheet, file);
  }

  void find_repeated_frame(const vole::Clip& clip, const std::string& file) {
    if (clip.loop && clip.frames.size() > 2 && clip.frames.front() == clip.frames.back() &&
        clip.ends.empty() && clip.frames[clip.frames.size() - 2] != clip.frames.back())
      add("repeated-frame", file,
          fmt::format("clip \"{}\" loops, and its last frame repeats its first: it stands still for a moment",
                      clip.name),
          "leave the last one out");
  }

  // A frame that lies elsewhere on its pivot than the one before it, as one that was drawn a row too high.
  // What runs moves its feet a little; what flies or spins is told so by a pivot that is not at its feet.
  void find_jump(const vole::Sheet& sheet, const vole::Clip& clip, const std::string& file) {
    const std::size_t count = clip.frames.size();
    std::map<int, vole::IRect> known;
    const auto shown = [&](int index) {
      const auto found = known.find(index);
      return found != known.end() ? found->second : known[index] = shown_part(sheet, index, clip);
    };
    for (std::size_t i = 0; i < count; ++i) {
      if (i + 1 == count && !clip.loop) return;
      const int from = clip.frames[i], to = clip.frames[(i + 1) % count];
      const vole::IRect before = shown(from), after = shown(to);
      if (before.empty() || after.empty()) continue;
      const vole::Frame frame = sheet.posed(to, &clip);
      const bool on_feet = frame.pivot.y * 8 >= frame.size.y * 7;
      const int fall = after.bottom() - before.bottom();
      const int slide = (after.left() + after.right() - before.left() - before.right()) / 2;
      const bool jumps = on_feet && std::abs(fall) > std::max(2, frame.size.y / 8);
      const bool slides = std::abs(slide) > std::max(2, frame.size.x / 4);
      if (!jumps && !slides) continue;
      return add("jumping-frame", file,
                 fmt::format("clip \"{}\" jumps {} pixels {} from frame {} to {}", clip.name,
                             std::abs(jumps ? fall : slide),
                             jumps ? (fall > 0 ? "down" : "up") : (slide > 0 ? "right" : "left"), from, to),
                 "`vole preview --show baseline` puts them side by side; move the drawing, or set the pivot");
    }
  }

  // What of a frame is not clear, from its pivot.
  static vole::IRect shown_part(const vole::Sheet& sheet, int index, const vole::Clip& clip) {
    const vole::Frame frame = sheet.posed(index, &clip);
    vole::IVec2 least = frame.area.size, most{-1, -1};
    for (int y = 0; y < frame.area.size.y; ++y)
      for (int x = 0; x < frame.area.size.x; ++x)
        if (frame.picture->row(frame.area.top() + y)[frame.area.left() + x].a != 0) {
          least = {std::min(least.x, x), std::min(least.y, y)};
          most = {std::max(most.x, x), std::max(most.y, y)};
        }
    return {least + frame.offset - frame.pivot, most - least + vole::IVec2{1, 1}};
  }

  void find_dead_rules(const vole::Sheet& sheet, const std::string& file) {
    const std::vector<std::string> reasons = why_rules_are_dead(sheet.rules);
    for (std::size_t i = 0; i < reasons.size(); ++i)
      if (!reasons[i].empty())
        add("dead-rule", file, "this rule can never win: " + reasons[i], "", sheet.rules.rules()[i].where);
  }

  void find_unset_facts(const vole::Sheet& sheet, const std::string& file) {
    if (!sources_.any()) return;
    for (const std::string& fact : sheet.rules.facts()) {
      if (vole::fact_source(fact) != vole::FactSource::game || sources_.quote(fact)) continue;
      const auto& rules = sheet.rules.rules();
      const auto asks = [&](const vole::ClipRules::Rule& rule) {
        return std::any_of(rule.when.begin(), rule.when.end(), [&](const auto& condition) {
          return sheet.rules.facts()[condition.fact] == fact;
        });
      };
      const vole::FilePosition& where = std::find_if(rules.begin(), rules.end(), asks)->where;
      const auto names = enum_names(vole::FactSource::game);
      std::vector<std::string> own(names.begin() + 1, names.end());
      const std::string near = vole::nearest_name(fact, own);
      add("unset-fact", file, fmt::format("nobody sets the fact \"{}\" that this rule asks for", fact),
          near.empty() ? "a game sets one with Sprite::set_fact" : fmt::format("did you mean \"{}\"?", near),
          where);
    }
  }

  // A clip is played by a rule, by the code, by a kind, or in a set that is.
  void find_unplayed_clips(const vole::Sheet& sheet, const std::string& file) {
    const auto& rules = sheet.rules.rules();
    const auto played = [&](const std::string& name) {
      return sources_mention(name) ||
             std::any_of(rules.begin(), rules.end(), [&](const auto& rule) { return rule.clip == name; });
    };
    std::set<const vole::Clip*> in_sets;
    for (const vole::ClipSet& set : sheet.sets) {
      const auto clips = sheet.played_by(set.name);
      in_sets.insert(clips.begin(), clips.end());
      if (!played(set.name))
        add("unplayed-clip", file,
            fmt::format("no rule plays the set \"{}\", and no code names it", set.name));
    }
    for (const vole::Clip& clip : sheet.clips)
      if (in_sets.count(&clip) == 0 && !played(clip.name))
        add("unplayed-clip", file,
            fmt::format("no rule plays the clip \"{}\", and no code names it", clip.name));
  }

  bool sources_mention(const std::string& clip) const {
    return !sources_.any() || sources_.mention("clip", clip) || sources_.mention("set", clip) ||
           named_.count("clip " + clip) != 0;
  }

  void over(const std::string& file, std::string_view what, std::int64_t value, std::int64_t limit,
            std::string_view unit) {
    if (limit > 0 && value > limit)
      add("over-limit", file, fmt::format("{} {} {}; the project's limit is {}", what, value, unit, limit));
  }

  void find_what_is_over_limits() {
    const vole::ProjectLimits& limits = project_.limits;
    std::int64_t all = 0;
    for (const std::string& file : files_) {
      if (!file.starts_with("assets/")) continue;
      std::error_code failed;
      const auto bytes = static_cast<std::int64_t>(
          std::filesystem::file_size(vole::join_path(catalog_.root(), file), failed));
      if (failed) continue;
      all += bytes;
      over(file, "has", (bytes + 1023) / 1024, limits.file_kib, "KiB");
    }
    over("game.toml", "all assets have", (all + 1023) / 1024, limits.assets_kib, "KiB");
    for (const std::string& name : catalog_.loose_names<vole::Picture>()) {
      try {
        const vole::IVec2 size = catalog_.get<vole::Picture>(name)->size();
        over("assets/" + name + ".png", "is", std::max(size.x, size.y), limits.picture_side,
             "pixels along a side");
      } catch (const Error&) {
      }
    }
    each_sheet([&](const vole::Sheet& sheet, const std::string& file) {
      over(file, "has", static_cast<std::int64_t>(sheet.frames.size()), limits.frames_in_sheet, "frames");
    });
    for (const std::string& name : catalog_.loose_names<vole::Level>()) {
      try {
        const vole::IVec2 cells = catalog_.get<vole::Level>(name)->cells;
        over("levels/" + name + ".level.toml", "has", std::int64_t{cells.x} * cells.y, limits.cells_in_level,
             "cells");
      } catch (const Error&) {
      }
    }
  }

  Catalog& catalog_;
  const vole::Project& project_;
  const std::set<std::string>& named_;
  std::vector<std::string> files_;
  Sources sources_;
  Allowances allowances_;
  std::vector<Finding> findings_;
};

}  // namespace

Allowances::Allowances(std::string root, const vole::Project& project, vole::Report& report)
    : root_(std::move(root)), report_(report) {
  for (const auto& item : project.check.allow) {
    check_item(item);
    said_by_project_["game.toml"].insert(item.name);
  }
  for (const auto& file : project.check.files) {
    if (!vole::file_exists(vole::join_path(root_, file.name)))
      report_.error(file.where, fmt::format("no file \"{}\"", file.name));
    for (const auto& item : file.value) {
      check_item(item);
      said_by_project_[file.name].insert(item.name);
    }
  }
}

void Allowances::check_item(const vole::NamedItem<vole::Located<std::string>>& item) {
  if (std::find(all_rules.begin(), all_rules.end(), item.name) == all_rules.end())
    report_.error(item.where, fmt::format("no rule \"{}\"", item.name),
                  vole::did_you_mean(item.name, all_rules));
  if (item.value.value.empty())
    report_.error(item.value.where, fmt::format("why \"{}\" is allowed is missing", item.name),
                  "say it for the next one who reads this");
}

Allowances::Rules Allowances::read(const std::string& file) {
  Rules rules;
  const std::string path = vole::join_path(root_, file);
  if (!file.ends_with(".toml") || !vole::file_exists(path)) return rules;
  try {
    const vole::Node root = vole::read_toml(path);
    const vole::Node* written = root.find("check");
    if (!written) return rules;
    vole::CheckNotes notes;
    vole::Report already_told;
    vole::read(*written, notes, already_told);
    for (const auto& item : notes.allow) {
      check_item(item);
      rules.insert(item.name);
    }
  } catch (const Error&) {
    // Told where the file is loaded.
  }
  return rules;
}

bool Allowances::allowed(const std::string& file, const std::string& rule) {
  const auto found = said_by_project_.find(file);
  if (found != said_by_project_.end() && found->second.count(rule) != 0) return true;
  if (file == "game.toml") return false;
  const auto [own, is_new] = said_by_file_.try_emplace(file);
  if (is_new) own->second = read(file);
  return own->second.count(rule) != 0;
}

std::vector<std::string> files_of_game(const std::string& root) {
  std::vector<std::string> files = vole::list_files(root);
  std::erase_if(files, [](const std::string& file) {
    return file.starts_with("build") && file.find('/') != std::string::npos;
  });
  return files;
}

std::vector<Finding> check_rules(Catalog& catalog, const vole::Project& project,
                                 const std::set<std::string>& named, vole::Report& report) {
  return RuleChecker(catalog, project, named, report).run();
}
