// unasked-sensor: what only notices, and is asked for by nobody.
#include <algorithm>

#include "game_under_check.hpp"
#include "vole/world/body.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/probes.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/tags.hpp"

namespace {

// What of a kind matters here.
struct Noticing {
  std::string kind, category;
  vole::FilePosition where;
  bool sensor = false;              // all of it
  std::vector<std::string> shapes;  // that are sensors, by name; without one it goes by the kind
  std::vector<std::string> tags;
};

class Sensors {
 public:
  explicit Sensors(GameUnderCheck& game) : game_(game) {}

  void look() {
    for (const auto& kind : game_.kinds.all) look_at(kind);
    for (const Noticing& each : all_) {
      if (each.sensor && !is_asked_for(each)) tell(each, fmt::format("the sensor \"{}\"", each.kind));
      for (const std::string& shape : each.shapes)
        if (!each.sensor && !game_.sources.quote(shape) && !is_asked_for(each))
          tell(each, fmt::format("the sensor \"{}\" of \"{}\"", shape, each.kind));
    }
  }

 private:
  void look_at(const vole::NamedItem<vole::TomlValue>& kind) {
    const auto compiled = game_.kinds_alone.compile(kind.name, kind.value);
    Noticing noticing{kind.name, {}, kind.where, false, {}, {}};
    if (const auto* const body = compiled->find<vole::Body>()) {
      noticing.sensor = body->use == vole::BodyUse::sensor;
      noticing.category = body->category.value;
    }
    if (const auto* const shapes = compiled->find<vole::Shapes>())
      for (const auto& shape : shapes->list)
        if (shape.value.use == vole::BodyUse::sensor) noticing.shapes.push_back(shape.value.name);
    if (const auto* const tags = compiled->find<vole::Tags>()) noticing.tags = tags->names;
    if (const auto* const probes = compiled->find<vole::Probes>())
      for (const auto& probe : probes->all) {
        asks_for_all_ = asks_for_all_ || probe.value.categories.empty();
        for (const auto& category : probe.value.categories) asked_categories_.insert(category.value);
      }
    all_.push_back(std::move(noticing));
  }

  bool is_asked_for(const Noticing& each) const {
    const auto in_code = [this](const std::string& name) { return game_.sources.quote(name); };
    return in_code(each.kind) || in_code(each.category) || asks_for_all_ ||
           asked_categories_.count(each.category) != 0 ||
           std::any_of(each.tags.begin(), each.tags.end(), in_code);
  }

  void tell(const Noticing& each, const std::string& what) {
    game_.add(
        "unasked-sensor", game_.relative(*each.where.file),
        what + " is asked for by nothing: no code names it, its tags or its category, and no probe does",
        "say a cue for it, or leave it out", each.where);
  }

  GameUnderCheck& game_;
  std::vector<Noticing> all_;
  std::set<std::string> asked_categories_;
  bool asks_for_all_ = false;
};

}  // namespace

void find_unasked_sensors(GameUnderCheck& game) {
  if (game.sources.any()) Sensors(game).look();
}
