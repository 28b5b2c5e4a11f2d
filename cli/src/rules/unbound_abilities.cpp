// unbound-ability: a mover that can do what nothing a player does asks for.
#include <utility>

#include "game_under_check.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/input/controls.hpp"
#include "vole/world/player.hpp"
#include "vole/world/side_mover.hpp"

namespace {

class Abilities {
 public:
  Abilities(GameUnderCheck& game, const vole::Controls& controls) : game_(game), controls_(controls) {}

  void look_at(const std::string& kind, const vole::TomlValue& components) {
    const auto compiled = game_.kinds_alone.compile(kind, components);
    const auto* const player = compiled->find<vole::Player>();
    const auto* const mover = compiled->find<vole::SideMover>();
    if (!player || !mover) return;
    const vole::Axis* const walk = vole::find_named(controls_.axes, player->walk.value);
    const bool up_and_down =
        (walk && walk->is_flat) || vole::find_named(controls_.axes, player->walk_down.value);
    for (const auto& [word, able] : {std::pair{"climb", mover->climb > 0}, std::pair{"swim", mover->swim > 0},
                                     std::pair{"crouch", mover->crouch > 0}})
      if (able && !up_and_down) add(components, word, "axis", player->walk_down.value);
    if (mover->dash > 0 && !vole::find_named(controls_.actions, player->dash.value))
      add(components, "dash", "action", player->dash.value);
  }

 private:
  void add(const vole::TomlValue& components, std::string_view ability, std::string_view sort,
           const std::string& name) {
    vole::FilePosition where = components.where;
    if (const vole::TomlValue* const mover = components.find("side_mover"))
      for (const vole::TomlValue::Entry& entry : mover->entries)
        if (entry.key == ability) where = entry.where;
    game_.add("unbound-ability", where.file ? game_.relative(*where.file) : "kinds.toml",
              fmt::format("the mover's \"{}\" needs the {} \"{}\", which controls.toml does not have",
                          ability, sort, name),
              "bind it there, or leave the ability out", where);
  }

  GameUnderCheck& game_;
  const vole::Controls& controls_;
};

}  // namespace

void find_unbound_abilities(GameUnderCheck& game) {
  const std::string file = vole::join_path(game.catalog.root(), "controls.toml");
  if (!vole::file_exists(file)) return;
  try {
    const vole::Controls controls = vole::read_controls(file);
    Abilities abilities(game, controls);
    for (const auto& kind : game.kinds.all) abilities.look_at(kind.name, kind.value);
  } catch (const vole::Error&) {
    // Reported where it is read.
  }
}
