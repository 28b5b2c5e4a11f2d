#include "wildlife.hpp"

#include "names.hpp"

void fly(vole::Stage& stage) {
  stage.entities.each<Flight, vole::Pose>([&stage](vole::Entity, Flight& flight, vole::Pose& pose) {
    if (flight.ticks++ == 0) flight.middle = pose.at;
    const float turn = 360.0f * static_cast<float>(flight.ticks) * stage.seconds_per_tick() / flight.seconds;
    pose.at = flight.middle +
              vole::Vec2{flight.reach * vole::sin_degrees(turn), -flight.rise * vole::sin_degrees(2 * turn)};
    pose.faces_left = pose.at.x < pose.before.x;
  });
}

void drop_leaves(vole::Stage& stage) {
  constexpr std::int64_t ticks_between = 50;
  const vole::Vec2 corner{stage.camera.corner({1, 1}, 1)};
  if (stage.tick_count() % ticks_between == 0) {
    const float x = stage.random.between(0, static_cast<float>(stage.camera.canvas.x) + 60);
    const vole::Entity leaf = stage.spawn("leaf", corner + vole::Vec2{x, -8});
    stage.get<vole::Sprite>(leaf).animator.set_speed(stage.random.between(0.6f, 1.3f));
  }
  stage.entities.each<Leaf, vole::Pose>([&](vole::Entity entity, const Leaf& leaf, vole::Pose& pose) {
    pose.at += vole::Vec2{-leaf.fall / 2, leaf.fall} * stage.seconds_per_tick();
    if (pose.at.y > static_cast<float>(stage.level().size().y) + 8) stage.remove(entity);
  });
}
