// A vole runs home along the canal, as far as it gets. The way is laid from pieces in front of it: see levels/.
#include "towpath.hpp"

#include <algorithm>
#include <string>

#include "names.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using vole::Vec2;

constexpr float near = 2;
constexpr vole::Colour cream{0xf7, 0xf3, 0xe3, 0xff};
constexpr vole::Colour night{0x1b, 0x1a, 0x26, 0xff};

// How far a run went.
struct Way {
  int metres = 0;
};
template <class V>
void describe(V& v, Way& way) {
  v("metres", way.metres);
}

// What the player wishes, from one run to the next.
enum class Pace { gentle, brisk };
constexpr auto enum_names(Pace) {
  return std::array<std::string_view, 2>{"gentle", "brisk"};
}
struct Wishes {
  Pace pace = Pace::brisk;
  bool counters = true;
};
template <class V>
void describe(V& v, Wishes& wishes) {
  v("pace", wishes.pace);
  v("counters", wishes.counters);
}

constexpr vole::TextStyle centred{.anchor = vole::Anchor::centre, .colour = cream, .outline = night};

class Title : public vole::Scene {
 public:
  void enter(Stage& stage) override;
  void tick(Stage& stage) override;
  void draw(vole::Drawing& drawing) const override {
    vole::TextStyle large = centred;
    large.scale = 2;
    const Vec2 middle = Vec2(drawing.canvas()) / 2.0f - Vec2{0, 40};
    drawing.text("letters", "THE TOWPATH", middle, large);
    drawing.text("letters", "Enter: run home   F1: settings", middle + Vec2{0, 26}, centred);
  }
};
template <class V>
void describe(V&, Title&) {}

// Over a run that has ended: the water goes on moving below.
class Splash : public vole::Scene {
 public:
  using Argument = Way;

  void enter(Stage& stage) override { stage.cover() = {.below_goes_on = true}; }
  void tick(Stage& stage) override {
    if (stage.input().pressed("again")) stage.close();
  }
  void draw(vole::Drawing& drawing) const override {
    const Vec2 middle = Vec2(drawing.canvas()) / 2.0f - Vec2{0, 30};
    const int metres = drawing.stage().argument<Way>().metres;
    drawing.text("letters", "Splash! " + std::to_string(metres) + " m along the towpath", middle, centred);
    drawing.text("letters", "press Enter", middle + Vec2{0, 18}, centred);
  }
};
template <class V>
void describe(V&, Splash&) {}

class Pause : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.cover() = {.darkens = 0.4f, .blurs = 2}; }
  void tick(Stage& stage) override {
    if (stage.input().pressed("settings")) stage.open("settings");
    if (stage.input().pressed("pause") || stage.input().pressed("again")) stage.close();
  }
  void draw(vole::Drawing& drawing) const override {
    drawing.text("letters", "A breath. Escape: run on   F1: settings", Vec2(drawing.canvas()) / 2.0f,
                 centred);
  }
};
template <class V>
void describe(V&, Pause&) {}

class Run : public vole::Scene {
 public:
  void enter(Stage& stage) override {
    stage.load_level(names::level::towpath);
    vole_ = stage.first("vole");
    stage.camera().smoothing = 0.1f;
    stage.camera().zoom = near;
    look(stage);
    stage.follow(vole_);
    began_at_ = run_to(stage);
  }

  void cues(vole::Cues& cues) override {
    cues.when_meet("vole", "berry", [this](Stage& stage, Entity, Entity berry) {
      ++berries_;
      stage.remove(berry);
    });
    cues.when_meet("vole", vole::zone("water"), [this](Stage& stage, Entity, Entity) { end(stage); });
    cues.when_closed<Splash>([this](Stage& stage) {
      if (stage.value<vole::HighScores>().takes(metres_))
        stage.leave_for<vole::HighScoresScene>({.points = metres_, .unit = "m", .back = "run"})
            .over_last_moment();
      else
        stage.leave_for<Run>().with(vole::iris(stage.on_canvas(vole_), Vec2{90, 120}, 0.8f, night));
    });
  }

  void tick(Stage& stage) override {
    look(stage);
    auto& wants = stage.get<vole::Intent>(vole_);
    wants = {};
    if (ended_) return;
    if (stage.input().pressed("pause")) stage.open<Pause>();
    wants.direction = {1, 0};
    wants.jump_pressed = stage.input().pressed("jump");
    wants.jump_held = stage.input().held("jump");
    metres_ = static_cast<int>(run_to(stage) - began_at_) / 16;
    const float fastest = stage.value<Wishes>().pace == Pace::brisk ? 130 : 108;
    stage.get<vole::SideMover>(vole_).speed = std::min(96.0f + static_cast<float>(metres_) * 0.03f, fastest);
  }

  void shows(vole::Shown& shown) override {
    const bool& seen = shown.value<Wishes>().counters;
    shown.text("letters", "{} m", {8, 6}, {.colour = cream, .outline = night}).of(metres_).when(seen);
    shown
        .text("letters", "berries: {}", {-8, 6},
              {.anchor = vole::Anchor::top_right, .colour = cream, .outline = night})
        .of(berries_)
        .from(vole::Anchor::top_right)
        .when(seen);
  }

 private:
  // From near at the start and at the end, and from further off in between: more is seen of what comes than of what was.
  void look(Stage& stage) const {
    vole::Camera& camera = stage.camera();
    camera.zoom = std::clamp(camera.zoom + (ended_ ? 0.02f : -0.02f), 1.0f, near);
    camera.offset = Vec2{72, -44} / camera.zoom;
    camera.slack = Vec2{0, 20} / camera.zoom;
  }
  // The level's origin moves along with the run; this is counted from where it was at first.
  double run_to(Stage& stage) const {
    return static_cast<double>(stage.get<vole::Pose>(vole_).at.x) -
           static_cast<double>(stage.level().offset().x);
  }
  void end(Stage& stage) {
    ended_ = true;
    stage.freeze(0.3f);
    stage.open<Splash>(Way{metres_});
  }

  Entity vole_;
  double began_at_ = 0;
  int metres_ = 0, berries_ = 0;
  bool ended_ = false;

  template <class V>
  friend void describe(V& v, Run& run) {
    v.state("vole", run.vole_);
    v.state("began_at", run.began_at_);
    v.state("metres", run.metres_);
    v.state("berries", run.berries_);
    v.state("ended", run.ended_);
  }
};

void Title::enter(Stage& stage) {
  stage.load_level(names::level::towpath);
  stage.camera().zoom = near;
  stage.camera().offset = {36, -44};
  stage.follow(stage.first("vole"));
}

void Title::tick(Stage& stage) {
  if (stage.input().pressed("settings")) stage.open("settings");
  if (stage.input().pressed("again")) stage.leave_for<Run>().with(vole::fade(0.3f, night));
}

}  // namespace

vole::Game towpath() {
  vole::Game game("game.toml");
  game.scene<Title>("title").scene<Run>("run").scene<Splash>("splash").scene<Pause>("pause");
  game.value<Wishes>("wishes", vole::Lasts::between_runs);
  game.value<vole::HighScores>("high scores", vole::join_high_scores);
  game.scene<vole::SettingsOf<Wishes>>("settings", {.keys = "keys"}).scene<vole::ControlsScene>("keys");
  game.scene<vole::HighScoresScene>("high scores");
  return game;
}
