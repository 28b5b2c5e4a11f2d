// Tracks, easing, tweens and the moment that everything stands still.
#include <cmath>
#include <functional>

#include "sheet_stage.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/world/world.hpp"

namespace {

using vole::Ease;
using vole::Entity;
using vole::Track;
using vole::TrackPose;
using vole::Vec2;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

bool near(Vec2 a, Vec2 b, float by = 1e-4f) {
  return std::abs(a.x - b.x) < by && std::abs(a.y - b.y) < by;
}

// Its mouse has tracks, and a clip that brings one along.
struct Small : SheetStage {
  Small() : SheetStage(sheet_text(), "[crumb]\nsprite = { sheet = \"mouse\" }\n") { spawn(); }
  static std::string sheet_text() {
    return "[clips.idle]\nframes = [0]\n[clips.hover]\nframes = [1]\ntracks = [\"bob\"]\n"
           "[points.hand]\nat = [6, 4]\n"
           "[tracks.bob]\nloop = true\noffset = [{ at = 0, value = [0, 0] }, { at = 0.5, value = [2, -4] }, "
           "{ at = 1, value = [0, 0] }]\n"
           "[tracks.spin]\nrotation = [{ at = 0, value = 0, ease = \"smooth\" }, { at = 0.3, value = 90 }]\n"
           "opacity = [{ at = 0.1, value = 0.5 }]\ntint = [{ at = 0, value = \"#ff0000\" }, { at = 0.2, "
           "value = \"#ffffff\" }]\n";
  }
};

}  // namespace

TEST_CASE("every easing begins at nothing, ends at all of it, and says so for any share") {
  for (int i = 0; i < 17; ++i) {
    const auto ease = static_cast<Ease>(i);
    CAPTURE(enum_names(ease)[static_cast<std::size_t>(i)]);
    CHECK(vole::eased(ease, 0) == 0);
    CHECK(vole::eased(ease, 1) == 1);
    CHECK(vole::eased(ease, -3) == 0);
    CHECK(vole::eased(ease, 7) == 1);
    CHECK(vole::eased(ease, std::nanf("")) == 0);
    // No jump in between, save where a step is meant.
    if (ease == Ease::stepped) continue;
    for (int share = 1; share <= 1000; ++share) {
      const float step = vole::eased(ease, static_cast<float>(share) / 1000) -
                         vole::eased(ease, static_cast<float>(share - 1) / 1000);
      REQUIRE(std::abs(step) < 0.03f);
    }
  }
  for (const Ease both : {Ease::sine_both, Ease::quad_both, Ease::cubic_both, Ease::back_both, Ease::smooth})
    for (const float share : {0.1f, 0.25f, 0.4f})
      CHECK(std::abs(vole::eased(both, share) + vole::eased(both, 1 - share) - 1) < 1e-5f);
  CHECK(vole::eased(Ease::back_in, 0.3f) < 0);
  CHECK(vole::eased(Ease::quad_in, 0.5f) == 0.25f);
}

TEST_CASE("every easing is the curve of its name") {
  // The plain formulas, of an easing that begins slowly.
  using Curve = std::function<double(double)>;
  const double pi = std::acos(-1.0);
  const Curve sine = [=](double t) { return 1 - std::cos(t * pi / 2); };
  const Curve quad = [](double t) { return t * t; };
  const Curve cubic = [](double t) { return t * t * t; };
  const Curve back = [](double t) { return 2.70158 * t * t * t - 1.70158 * t * t; };
  const auto out = [](const Curve& in) { return [in](double t) { return 1 - in(1 - t); }; };
  const auto both = [](const Curve& in) {
    return [in](double t) { return t < 0.5 ? in(2 * t) / 2 : 1 - in(2 * (1 - t)) / 2; };
  };
  const Curve elastic = [=](double t) {
    return 1 + std::pow(2, -10 * t) * std::sin((10 * t - 0.75) * 2 * pi / 3);
  };
  // Four parabolas; each touches 1 where it begins and ends.
  const Curve bounce = [](double t) {
    for (const auto& [end, middle, lowest] :
         std::vector<std::array<double, 3>>{{1 / 2.75, 0, 0},
                                            {2 / 2.75, 1.5 / 2.75, 0.75},
                                            {2.5 / 2.75, 2.25 / 2.75, 0.9375},
                                            {1, 2.625 / 2.75, 0.984375}})
      if (t < end) return 7.5625 * (t - middle) * (t - middle) + lowest;
    return 1.0;
  };
  const std::vector<std::pair<Ease, Curve>> all{{Ease::linear, [](double t) { return t; }},
                                                {Ease::stepped, [](double) { return 0.0; }},
                                                {Ease::smooth, [](double t) { return t * t * (3 - 2 * t); }},
                                                {Ease::sine_in, sine},
                                                {Ease::sine_out, out(sine)},
                                                {Ease::sine_both, both(sine)},
                                                {Ease::quad_in, quad},
                                                {Ease::quad_out, out(quad)},
                                                {Ease::quad_both, both(quad)},
                                                {Ease::cubic_in, cubic},
                                                {Ease::cubic_out, out(cubic)},
                                                {Ease::cubic_both, both(cubic)},
                                                {Ease::back_in, back},
                                                {Ease::back_out, out(back)},
                                                {Ease::back_both, both(back)},
                                                {Ease::elastic_out, elastic},
                                                {Ease::bounce_out, bounce}};
  CHECK(all.size() == enum_names(Ease{}).size());
  for (const auto& [ease, curve] : all)
    for (int i = 1; i < 200; ++i) {
      const float share = static_cast<float>(i) / 200;
      CAPTURE(enum_names(ease)[static_cast<std::size_t>(ease)], share);
      // The powers of two in between are replaced by straight lines.
      const double tolerance = ease == Ease::elastic_out ? 0.07 : 1e-4;
      REQUIRE(std::abs(vole::eased(ease, share) - curve(share)) < tolerance);
    }
}

TEST_CASE("a track goes through its keyframes, whatever lies between") {
  vole::Random chance(70);
  for (int round = 0; round < 300; ++round) {
    Track track;
    std::int64_t at = 0;
    const auto count = 2 + chance.below(5);
    for (std::uint32_t i = 0; i < count; ++i) {
      track.offset.push_back(
          {at, {chance.within(-9, 9), chance.within(-9, 9)}, static_cast<Ease>(chance.below(17))});
      at += 50'000 * (1 + chance.below(20));
    }
    for (const auto& key : track.offset) REQUIRE(near(track.at(key.at / 50'000 * 3, 60).offset, key.value));
    // Smooth keyframes on a straight line stay on it.
    Track straight;
    for (const std::int64_t time : {0, 100'000, 400'000, 500'000})
      straight.rotation.push_back({time, static_cast<float>(time) / 1000, Ease::smooth});
    for (int tick = 6; tick <= 24; ++tick)
      REQUIRE(std::abs(straight.at(tick, 60).rotation - static_cast<float>(tick) * 1000 / 60) < 0.1f);
    // Played at no strength it does nothing, at half strength half.
    const TrackPose whole = track.at(7, 60), half = track.at(7, 60, 0.5f);
    REQUIRE(track.at(7, 60, 0) == TrackPose{});
    REQUIRE(near(half.offset * 2.0f, whole.offset));
  }
}

TEST_CASE("a track leaves nothing behind, whenever it is stopped, changed or left") {
  Small small;
  vole::Random chance(81);
  const vole::PictureItem rest = small.drawn();
  const auto same = [&](const vole::PictureItem& item) {
    return item.at == rest.at && item.rotation == rest.rotation && item.scale == rest.scale &&
           item.tint == rest.tint && item.opacity == rest.opacity;
  };
  int moved = 0;
  for (int round = 0; round < 3000; ++round) {
    switch (chance.below(9)) {
      case 0:
        small.sprite().play_track("bob", chance.within(0, 2));
        break;
      case 1:
        small.sprite().play_track("spin");
        break;
      case 2:
        small.sprite().play_track(vole::tracks::squash());
        break;
      case 3:
        small.sprite().play_track(vole::tracks::blink());
        break;
      case 4:
        small.sprite().play("hover");
        break;
      case 5:
        small.sprite().play("idle");
        break;
      case 6:
        small.sprite().stop_track("bob");
        break;
      default:
        break;
    }
    small.tick(static_cast<int>(chance.below(30)));
    if (!same(small.drawn())) ++moved;
    REQUIRE(small.stage->get<vole::Pose>(small.mouse).at == Vec2{20, 20});
    if (!chance.chance(0.2f)) continue;
    small.sprite().stop_tracks();
    small.sprite().play("idle");
    REQUIRE(small.sprite().track_pose(60) == TrackPose{});
    REQUIRE(same(small.drawn()));
  }
  CHECK(moved > 1000);
  // One that does not loop is over by itself.
  small.sprite().play_track("spin");
  small.tick(9);
  CHECK_FALSE(same(small.drawn()));
  small.tick(9);
  CHECK(same(small.drawn()));
  CHECK(error_of([&] { small.sprite().play_track("bib"); }, small.folder) ==
        "error: no track \"bib\" in \"mouse\"; did you mean \"bob\"?");
}

TEST_CASE("what is attached to a thing moves with its tracks, and is where it was when they end") {
  Small small;
  const Entity crumb = small.stage->spawn("crumb", {0, 0});
  small.stage->attach(crumb, small.mouse, "hand");
  small.tick();
  const Vec2 pose = small.stage->get<vole::Pose>(crumb).at;
  const Vec2 rest = small.drawn(1).at;
  small.sprite().play_track("bob");
  small.tick(30);
  CHECK(small.drawn(1).at == rest + Vec2{2, -4});
  CHECK(small.stage->get<vole::Pose>(crumb).at == pose);
  small.stage->detach(crumb);
  CHECK(small.drawn(1).at == rest);
}

TEST_CASE("tracks survive a new version of their sheet, and go with the name when it goes") {
  Small small;
  small.sprite().play_track("bob");
  small.sprite().play_track(vole::tracks::squash());
  small.tick(3);
  std::string text = Small::sheet_text();
  text.replace(text.find("[2, -4]"), 7, "[4, -8]");
  small.reload(text);
  small.tick(27);
  CHECK(near(small.sprite().track_pose(60).offset, {4, -8}));
  small.reload("points = { hand = { at = [0, 0] } }\n");
  small.tick();
  CHECK(small.sprite().track_pose(60).offset == Vec2{0, 0});
}

TEST_CASE("what is wrong with a track is reported at its place") {
  const auto wrong = [](const std::string& lines) {
    TempFolder folder;
    folder.write_picture("assets/a.png", {4, 4});
    folder.write("assets/a.sheet.toml", std::string("[tracks.t]\n").append(lines));
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Sheet>("a"); }, folder);
  };
  CHECK(has(wrong("rotation = [{ at = 1, value = 0 }, { at = 0.5, value = 1 }]"),
            "a.sheet.toml:2:43: error: this keyframe is at 0.5 seconds, and the one before it at 1"));
  CHECK(has(wrong("rotation = [{ at = 1, value = 0 }, { at = 1, value = 1 }]"), "the one before it at 1"));
  CHECK(has(wrong("rotation = [{ at = 0, value = 0 }]"), "track \"t\" takes no time"));
  CHECK(has(wrong("loop = true"), "takes no time"));
  CHECK(has(wrong("rotation = [{ at = 1, value = nan }]"), "a finite number wanted"));
  CHECK(has(wrong("rotation = [{ at = -1, value = 1 }]"), "-1 is too small"));
  CHECK(has(wrong("scale = [{ at = 1, value = 2 }]"), "a pair like"));
  CHECK(has(wrong("scale = [{ at = 1, value = [2, 2], ease = \"quick\" }]"), "unknown word \"quick\""));
  TempFolder folder;
  folder.write_picture("assets/a.png", {4, 4});
  folder.write("assets/a.sheet.toml", "clips = { c = { frames = [0], tracks = [\"bob\"] } }\n");
  CHECK(has(error_of([&] { vole::Catalog(folder.path()).get<vole::Sheet>("a"); }, folder),
            "1:41: error: no track \"bob\""));
}

TEST_CASE("a tween takes a field to each value in its time, then tells a name once") {
  Small small;
  auto& sprite = small.sprite();
  int called = 0;
  small.say([&](vole::Cues& cues) {
    cues.when_told("shown", [&](vole::Stage&, Entity entity) {
      CHECK(entity == small.mouse);
      ++called;
    });
    cues.when_told("wrong", [&](vole::Stage&) { called = 100; });
  });
  small.stage->tween(small.mouse, &vole::Sprite::opacity)
      .to(0, 0.5f)
      .then(1, 0.1f, Ease::quad_out)
      .then_tell("shown");
  small.stage->tween(small.mouse, &vole::Sprite::tint).to({0, 0, 0, 255}, 1);
  small.stage->tween(small.mouse, &vole::Sprite::scale).to({3, 1}, 0.2f, Ease::back_out);
  small.tick(15);
  CHECK(sprite.opacity == 0.5f);
  CHECK(sprite.tint == vole::Colour{191, 191, 191, 255});
  CHECK(sprite.scale == Vec2{3, 1});
  small.tick(15);
  CHECK(sprite.opacity == 0);
  CHECK(called == 0);
  small.tick(6);
  CHECK(sprite.opacity == 1);
  CHECK(called == 1);
  small.tick(30);
  CHECK(called == 1);
  CHECK(sprite.tint == vole::Colour{0, 0, 0, 255});
  // The newer one of the same field wins; one goes with its thing, and tells nothing.
  small.stage->tween(small.mouse, &vole::Sprite::rotation).to(100, 1).then_tell("wrong");
  small.tick(10);
  small.stage->tween(small.mouse, &vole::Sprite::rotation).to(0, 0.1f);
  small.tick(10);
  CHECK(sprite.rotation == 0);
  small.stage->tween(small.mouse, &vole::Sprite::depth).to(5, 1).then_tell("wrong");
  small.stage->remove(small.mouse);
  small.tick(100);
  CHECK(called == 1);
  CHECK(small.running->world().tweens.empty());
  // Nor does it tell anything when its component goes.
  small.spawn();
  small.stage->entities().add(small.mouse, vole::Motion{});
  small.stage->tween(small.mouse, &vole::Motion::velocity).to({1, 0}, 1).then_tell("wrong");
  small.tick();
  small.stage->entities().remove<vole::Motion>(small.mouse);
  small.tick(100);
  CHECK(called == 1);
}

namespace {

struct Undescribed {
  float hidden = 0;
  float seen = 0;
};
template <class V>
void describe(V& v, Undescribed& u) {
  v("seen", u.seen);
}

}  // namespace

TEST_CASE("a tween that cannot be is refused") {
  Small small;
  small.say([](vole::Cues& cues) { cues.when_told("done", [](vole::Stage&) {}); });
  CHECK(has(error_of([&] { small.stage->tween(small.mouse, &Undescribed::seen); }, small.folder),
            "a component that the game does not know"));
  small.game.knows<Undescribed>("undescribed");
  CHECK(has(error_of([&] { small.stage->tween(small.mouse, &Undescribed::hidden); }, small.folder),
            "a field of \"undescribed\" that is not described"));
  CHECK(error_of([&] { small.stage->tell("dnoe"); }, small.folder) ==
        "error: no cue for when \"dnoe\" is told; did you mean \"done\"?");
  CHECK(error_of([&] { small.stage->after(1, "dnoe"); }, small.folder) ==
        "error: no cue for when \"dnoe\" is told; did you mean \"done\"?");
}

TEST_CASE("what the end of a tween tells may begin another, and hundreds run side by side") {
  Small small;
  int laps = 0;
  const auto lap = [&](vole::Stage& stage) {
    ++laps;
    stage.tween(small.mouse, &vole::Sprite::rotation).to(static_cast<float>(laps), 0.05f).then_tell("lap");
  };
  small.say([&](vole::Cues& cues) { cues.when_told("lap", lap); });
  lap(*small.stage);
  small.tick(31);
  CHECK(laps == 1 + 31 / 3);
  std::vector<Entity> crumbs;
  for (int i = 0; i < 500; ++i) {
    crumbs.push_back(small.stage->spawn("crumb", {0, 0}));
    small.stage->tween(crumbs.back(), &vole::Sprite::depth).to(static_cast<float>(i), 0.1f);
  }
  small.tick(6);
  for (int i = 0; i < 500; ++i)
    CHECK(small.stage->get<vole::Sprite>(crumbs[static_cast<std::size_t>(i)]).depth == static_cast<float>(i));
}

TEST_CASE("a hit that is felt: all stand still for so long, and go on as they were") {
  Small small;
  small.sprite().play("hover");
  small.stage->tween(small.mouse, &vole::Sprite::opacity).to(0, 1);
  small.tick(10);
  const float opacity = small.sprite().opacity;
  small.stage->freeze(0.1f);
  CHECK(small.stage->frozen());
  small.tick(6);
  CHECK(small.sprite().opacity == opacity);
  CHECK(small.sprite().playhead().ticks() == 10);
  CHECK_FALSE(small.stage->frozen());
  small.tick();
  CHECK(small.sprite().playhead().ticks() == 11);
}

TEST_CASE("sprites that play clips, rules, tracks and tweens allocate nothing in a steady frame") {
  if (!allocations_are_counted()) return;
  Small small;
  small.sprite().play("hover");
  small.sprite().play_track("bob");
  small.stage->tween(small.mouse, &vole::Sprite::rotation).to(1000, 100);
  vole::DrawList list;
  const auto frame = [&] {
    small.tick();
    list.start({64, 32});
    small.running->draw(list, 1);
    list.sort();
  };
  for (int i = 0; i < 10; ++i) frame();
  const std::int64_t before = allocations_so_far();
  for (int i = 0; i < 200; ++i) frame();
  CHECK(allocations_so_far() == before);
}

TEST_CASE("four tracks play at once, a fifth replaces the oldest, and a stranger is refused") {
  std::string sheet;
  for (const char* name : {"a", "b", "c", "d", "e"})
    sheet += std::string("[tracks.") + name +
             "]\nloop = true\noffset = [{ at = 0, value = [0, 0] }, { at = 1, value = [0, 0] }]\n";
  SheetStage stage(sheet);
  stage.spawn();
  const auto names = [&] {
    std::vector<std::string> playing;
    for (const vole::PlayingTrack& each : stage.sprite().playing.tracks) playing.push_back(each.name);
    return playing;
  };
  for (const char* name : {"b", "a", "c", "d"}) {
    stage.sprite().play_track(name);
    stage.tick();
  }
  CHECK(names() == std::vector<std::string>{"b", "a", "c", "d"});
  stage.sprite().play_track("b");
  stage.tick();
  CHECK(names() == std::vector<std::string>{"b", "a", "c", "d"});
  // Now "a" plays for longest.
  stage.sprite().play_track("e");
  CHECK(names() == std::vector<std::string>{"b", "e", "c", "d"});
  Track stranger;
  stranger.name = "stranger";
  CHECK_THROWS_WITH(stage.sprite().play_track(stranger),
                    Catch::Contains("the game does not know the track \"stranger\""));
}
