#include "wildlife.hpp"

#include "names.hpp"

void fly(vole::Stage& stage) {
  stage.entities().visit<Flight, vole::Pose>([&stage](vole::Entity, Flight& flight, vole::Pose& pose) {
    if (flight.ticks++ == 0) flight.middle = pose.at;
    const float turn = 360.0f * static_cast<float>(flight.ticks) * stage.seconds_per_tick() / flight.seconds;
    pose.at = flight.middle +
              vole::Vec2{flight.reach * vole::sin_degrees(turn), -flight.rise * vole::sin_degrees(2 * turn)};
    pose.mirrored = pose.at.x < pose.before.x;
  });
}

void scatter_leaves(vole::Stage& stage) {
  constexpr int count = 9;
  const vole::Rect seen = stage.camera().seen();
  for (int i = 0; i < count; ++i) {
    const vole::Vec2 at{stage.random().within(0, seen.size.x), stage.random().within(0, seen.size.y)};
    const vole::Entity leaf = stage.spawn("leaf", seen.at + at);
    stage.get<vole::Sprite>(leaf).set_speed(stage.random().within(0.6f, 1.3f));
  }
}

void drop_leaves(vole::Stage& stage) {
  constexpr float edge = 16;
  const vole::Rect shown = stage.camera().seen();
  stage.entities().visit<Leaf, vole::Pose>([&](vole::Entity, const Leaf& leaf, vole::Pose& pose) {
    pose.at += vole::Vec2{-leaf.fall / 2, leaf.fall} * stage.seconds_per_tick();
    const vole::Vec2 seen = pose.at - shown.at;
    vole::Vec2 again = pose.at;
    if (seen.y > shown.size.y + edge)
      again = shown.at + vole::Vec2{stage.random().within(0, shown.size.x), -edge};
    if (seen.x < -edge) again.x += shown.size.x + 2 * edge;
    if (seen.x > shown.size.x + edge) again.x -= shown.size.x + 2 * edge;
    if (again != pose.at) pose.at = pose.before = again;
  });
}
