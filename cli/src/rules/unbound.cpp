// unbound-action: an action or axis that nothing a person does can press or push.
#include <algorithm>

#include "game_under_check.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/input/controls.hpp"

namespace {

bool is_bound(const vole::Action& action) {
  return !action.bindings.empty();
}
bool is_bound(const vole::Axis& axis) {
  return !axis.less.empty() || !axis.more.empty() || !axis.up.empty() || !axis.down.empty() ||
         !axis.sticks.empty();
}

// For any player. `list_of(player)` are the actions or axes of one, from 0 on.
template <class ListOf>
void look_at(GameUnderCheck& game, const vole::Controls& controls, const ListOf& list_of,
             const vole::TomlValue* written, const char* sort) {
  const auto& first = list_of(std::size_t{0});
  for (std::size_t i = 0; i < first.size(); ++i) {
    bool bound = false;
    for (std::size_t player = 0; player < static_cast<std::size_t>(controls.players()); ++player)
      bound = bound || is_bound(list_of(player)[i]);
    if (bound) continue;
    vole::FilePosition where;
    if (written)
      for (const vole::TomlValue::Entry& entry : written->entries)
        if (entry.key == first[i].name) where = entry.where;
    game.add("unbound-action", "controls.toml",
             fmt::format("nothing is bound to the {} \"{}\"", sort, first[i].name),
             "name what presses it, as \"key Space\"", where);
  }
}

}  // namespace

void find_unbound_actions(GameUnderCheck& game) {
  const std::string file = vole::join_path(game.catalog.root(), "controls.toml");
  if (!vole::file_exists(file)) return;
  try {
    const vole::Controls controls = vole::read_controls(file);
    const vole::TomlValue root = vole::read_toml(file);
    look_at(
        game, controls, [&](std::size_t player) -> const auto& { return controls.actions_of(player); },
        root.find("actions"), "action");
    look_at(
        game, controls, [&](std::size_t player) -> const auto& { return controls.axes_of(player); },
        root.find("axes"), "axis");
  } catch (const vole::Error&) {
    // Reported where it is read.
  }
}
