// dead-rule, unset-fact and unplayed-clip: clips and clip rules that have no effect.
#include <algorithm>

#include "dead_rules.hpp"
#include "game_under_check.hpp"
#include "vole/base/names.hpp"
#include "vole/world/sprite.hpp"

namespace {

void find_dead_rules(GameUnderCheck& game, const vole::Sheet& sheet, const std::string& file) {
  const std::vector<std::string> reasons = why_rules_are_dead(sheet.rules);
  for (std::size_t i = 0; i < reasons.size(); ++i)
    if (!reasons[i].empty())
      game.add("dead-rule", file, "this rule can never win: " + reasons[i], "", sheet.rules.rules()[i].where);
}

// Whether a kind has a check of this name.
bool is_check(const GameUnderCheck& game, const std::string& name) {
  return std::any_of(game.kinds.all.begin(), game.kinds.all.end(), [&name](const auto& kind) {
    const vole::TomlValue* const probes = kind.value.find("probes");
    return probes && probes->find(name);
  });
}

// Whether a part of a kind's mind has this name.
bool is_part_of_mind(const GameUnderCheck& game, const std::string& name) {
  return std::any_of(game.kinds.all.begin(), game.kinds.all.end(), [&name](const auto& kind) {
    const vole::TomlValue* const mind = kind.value.find("mind");
    return mind && std::any_of(mind->items.begin(), mind->items.end(), [&name](const vole::TomlValue& part) {
             const vole::TomlValue* const its = part.find("name");
             return its && its->text == name;
           });
  });
}

void find_unset_facts(GameUnderCheck& game, const vole::Sheet& sheet, const std::string& file) {
  if (!game.sources.any()) return;
  for (const std::string& fact : sheet.rules.facts()) {
    if (vole::fact_source(fact) != vole::FactSource::game || game.sources.quote(fact) ||
        is_check(game, fact) || is_part_of_mind(game, fact))
      continue;
    const auto& rules = sheet.rules.rules();
    const auto asks = [&](const vole::ClipRules::Rule& rule) {
      return std::any_of(rule.when.begin(), rule.when.end(),
                         [&](const auto& condition) { return sheet.rules.facts()[condition.fact] == fact; });
    };
    const vole::FilePosition& where = std::find_if(rules.begin(), rules.end(), asks)->where;
    const auto names = enum_names(vole::FactSource::game);
    std::vector<std::string> own(names.begin() + 1, names.end());
    const std::string near = vole::nearest_name(fact, own);
    game.add(
        "unset-fact", file, fmt::format("nothing sets the fact \"{}\" that this rule asks for", fact),
        near.empty() ? "a game sets one with Sprite::set_fact" : fmt::format("did you mean \"{}\"?", near),
        where);
  }
}

bool code_or_kind_plays(const GameUnderCheck& game, const std::string& clip) {
  return !game.sources.any() || !game.all_read || game.sources.mention("clip", clip) ||
         game.sources.mention("set", clip) || game.named.count("clip " + clip) != 0;
}

// A clip is played by a rule, by the code, by a kind, or in a set that is.
void find_unplayed_clips(GameUnderCheck& game, const vole::Sheet& sheet, const std::string& file) {
  const auto& rules = sheet.rules.rules();
  const auto played = [&](const std::string& name) {
    return code_or_kind_plays(game, name) ||
           std::any_of(rules.begin(), rules.end(), [&](const auto& rule) { return rule.clip == name; });
  };
  std::set<const vole::Clip*> in_sets;
  for (const vole::ClipSet& set : sheet.sets) {
    const auto clips = sheet.played_by(set.name);
    in_sets.insert(clips.begin(), clips.end());
    if (!played(set.name))
      game.add("unplayed-clip", file,
               fmt::format("no rule plays the set \"{}\", and no code names it", set.name));
  }
  for (const vole::Clip& clip : sheet.clips)
    if (in_sets.count(&clip) == 0 && !played(clip.name))
      game.add("unplayed-clip", file,
               fmt::format("no rule plays the clip \"{}\", and no code names it", clip.name));
}

}  // namespace

void find_odd_playing(GameUnderCheck& game) {
  game.each_sheet([&game](const vole::Sheet& sheet, const std::string& file) {
    if (sheet.rules.empty()) return;
    find_dead_rules(game, sheet, file);
    find_unset_facts(game, sheet, file);
    find_unplayed_clips(game, sheet, file);
  });
}
