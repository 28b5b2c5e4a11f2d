#include <SDL.h>

#include <algorithm>
#include <chrono>
#include <map>
#include <string_view>

#include "key_table.hpp"
#include "output_place.hpp"
#include "screen.hpp"
#include "vole/base/program.hpp"
#include "vole/input/gather.hpp"
#include "vole/window.hpp"

namespace vole {
namespace {

using PadOwner = std::unique_ptr<SDL_GameController, decltype(&SDL_GameControllerClose)>;
using WindowOwner = std::unique_ptr<SDL_Window, decltype(&SDL_DestroyWindow)>;

Error sdl_error(const std::string& what) {
  return Error(FilePosition{}, what + ": " + SDL_GetError(), "without a display, run with --headless");
}

// Where there is no display SDL takes a driver that draws into nothing: a game would then run unseen. Whoever names a
// driver in the environment gets it.
bool driver_shows_windows() {
  const char* const driver = SDL_GetCurrentVideoDriver();
  if (!driver || SDL_getenv("SDL_VIDEODRIVER")) return driver != nullptr;
  const std::string_view name = driver;
  return name != "dummy" && name != "offscreen" && name != "evdev";
}

// Starts and ends SDL; the first member of the host, so that it outlives windows and pads.
struct SdlInUse {
  SdlInUse() {
    SDL_SetMainReady();
    // On Windows a pixel of the window is then a pixel of the display, whatever enlargement the desktop is set to.
    SDL_SetHint(SDL_HINT_WINDOWS_DPI_AWARENESS, "permonitorv2");
    if (SDL_Init(SDL_INIT_VIDEO | SDL_INIT_GAMECONTROLLER) != 0) throw sdl_error("no window can be opened");
    if (!driver_shows_windows()) {
      SDL_Quit();
      throw Error(FilePosition{}, "no window can be opened: there is no display",
                  "without a display, run with --headless");
    }
  }
  ~SdlInUse() { SDL_Quit(); }
  SdlInUse(const SdlInUse&) = delete;
  SdlInUse& operator=(const SdlInUse&) = delete;
};

class WindowHost final : public Host {
 public:
  void open(const WindowWish& wish) override {
    title_ = wish.title;
    canvas_ = wish.canvas;
    scaling_ = wish.scaling;
    const int scale = wish.scale > 0 ? wish.scale : fitting_scale(wish.canvas);
    const Uint32 flags = SDL_WINDOW_RESIZABLE | SDL_WINDOW_ALLOW_HIGHDPI;
    const IVec2 size{wish.canvas.x * scale, wish.canvas.y * scale};
    if (!open_window(size, flags | SDL_WINDOW_OPENGL) ||
        !(screen_ = make_gl_screen(window_.get(), wish.scaling))) {
      window_.reset();
      if (!open_window(size, flags)) throw sdl_error("no window can be opened");
      screen_ = make_plain_screen(window_.get(), wish.scaling);
    }
    SDL_SetWindowMinimumSize(window_.get(), wish.canvas.x, wish.canvas.y);
    show_icon(wish.icon);
  }

  int run(std::unique_ptr<HostedRun> run) override {
    while (run->step()) {
      // Where nothing waits for the display's next picture, do not burn the processor.
      const auto now = Clock::now();
      if (now - presented_ < std::chrono::milliseconds(2)) SDL_Delay(2);
      presented_ = Clock::now();
    }
    return run->finish();
  }

  std::int64_t elapsed() override {
    const auto now = Clock::now();
    const auto passed = started_ ? std::chrono::duration_cast<std::chrono::nanoseconds>(now - last_)
                                 : std::chrono::nanoseconds(0);
    started_ = true;
    last_ = now;
    return passed.count();
  }

  void gather(InputGather& gather) override {
    SDL_Event event;
    while (SDL_PollEvent(&event)) take(event, gather);
  }

  bool shows() const override { return true; }
  void present(const Image& canvas) override { screen_->show(canvas); }
  bool closing() const override { return closing_; }

  void tell(const std::string& line) override {
    if (line == told_) return;
    told_ = line;
    SDL_SetWindowTitle(window_.get(), line.empty() ? title_.c_str() : line.c_str());
  }

 private:
  using Clock = std::chrono::steady_clock;

  bool open_window(IVec2 size, Uint32 flags) {
    window_.reset(SDL_CreateWindow(title_.c_str(), SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, size.x,
                                   size.y, flags));
    return window_ != nullptr;
  }

  // The largest whole multiple that leaves room for the desktop's own bars.
  static int fitting_scale(IVec2 canvas) {
    SDL_Rect desktop{0, 0, 1280, 720};
    SDL_GetDisplayUsableBounds(0, &desktop);
    return std::max(1, std::min((desktop.w - 16) / canvas.x, (desktop.h - 48) / canvas.y));
  }

  void show_icon(const Image& icon) {
    if (icon.empty()) return;
    SDL_Surface* const surface = SDL_CreateRGBSurfaceWithFormatFrom(
        const_cast<Colour*>(icon.row(0)), icon.size().x, icon.size().y, 32,
        icon.size().x * static_cast<int>(sizeof(Colour)), SDL_PIXELFORMAT_RGBA32);
    if (!surface) return;
    SDL_SetWindowIcon(window_.get(), surface);
    SDL_FreeSurface(surface);
  }

  static void put(InputGather& gather, std::optional<Control> control, float value, std::uint8_t device = 0) {
    if (control) gather.add({*control, value, device});
  }

  void take(const SDL_Event& event, InputGather& gather) {
    switch (event.type) {
      case SDL_QUIT:
        closing_ = true;
        break;
      case SDL_KEYDOWN:
        if (event.key.repeat) break;
        if (wants_full_screen(event.key.keysym))
          switch_full_screen();
        else
          put_key(gather, event.key.keysym, 1);
        break;
      case SDL_KEYUP:
        put_key(gather, event.key.keysym, 0);
        break;
      case SDL_MOUSEMOTION:
        point(gather, on_canvas({event.motion.x, event.motion.y}));
        break;
      case SDL_MOUSEWHEEL:
        turn_wheel(gather, event.wheel);
        break;
      case SDL_FINGERDOWN:
      case SDL_FINGERMOTION:
      case SDL_FINGERUP:
        touch(gather, event.tfinger);
        break;
      case SDL_MOUSEBUTTONDOWN:
        put(gather, mouse_control(event.button.button), 1);
        break;
      case SDL_MOUSEBUTTONUP:
        put(gather, mouse_control(event.button.button), 0);
        break;
      case SDL_CONTROLLERDEVICEADDED:
        add_pad(event.cdevice.which);
        break;
      case SDL_CONTROLLERDEVICEREMOVED:
        gather.release(device_of(event.cdevice.which));
        pads_.erase(event.cdevice.which);
        break;
      case SDL_CONTROLLERBUTTONDOWN:
        put(gather, button_control(event.cbutton.button), 1, device_of(event.cbutton.which));
        break;
      case SDL_CONTROLLERBUTTONUP:
        put(gather, button_control(event.cbutton.button), 0, device_of(event.cbutton.which));
        break;
      case SDL_CONTROLLERAXISMOTION:
        put(gather, axis_control(event.caxis.axis),
            std::max(-1.0f, static_cast<float>(event.caxis.value) / 32767.0f), device_of(event.caxis.which));
        break;
      case SDL_WINDOWEVENT:
        // Keys let go while another window has the keyboard are never reported.
        if (event.window.event == SDL_WINDOWEVENT_FOCUS_LOST) gather.release_all();
        if (event.window.event == SDL_WINDOWEVENT_LEAVE) gather.point_at(std::nullopt);
        break;
      default:
        break;
    }
  }

  // By its place, and by the letter that the keyboard's layout has there.
  static void put_key(InputGather& gather, const SDL_Keysym& key, float value) {
    put(gather, key_control(key.scancode), value);
    put(gather, letter_control(key.sym), value);
  }

  static void turn_wheel(InputGather& gather, const SDL_MouseWheelEvent& wheel) {
    const int sign = wheel.direction == SDL_MOUSEWHEEL_FLIPPED ? -1 : 1;
    gather.turn_wheel({sign * wheel.x, -sign * wheel.y});
  }

  void touch(InputGather& gather, const SDL_TouchFingerEvent& finger) const {
    const FingerPhase phase = finger.type == SDL_FINGERDOWN ? FingerPhase::down
                              : finger.type == SDL_FINGERUP ? FingerPhase::up
                                                            : FingerPhase::moves;
    IVec2 window{0, 0};
    SDL_GetWindowSize(window_.get(), &window.x, &window.y);
    gather.add(FingerEvent{finger.fingerId, phase, on_canvas(Vec2{finger.x, finger.y} * Vec2(window))});
  }

  void point(InputGather& gather, Vec2 at) const {
    const bool inside = Rect{{0, 0}, Vec2(canvas_)}.contains(at);
    gather.point_at(inside ? std::optional(at) : std::nullopt);
  }

  // The point of the canvas under one of the window, which counts in the desktop's own units.
  Vec2 on_canvas(Vec2 at) const {
    IVec2 window{0, 0}, pixels{0, 0};
    SDL_GetWindowSize(window_.get(), &window.x, &window.y);
    SDL_GetWindowSizeInPixels(window_.get(), &pixels.x, &pixels.y);
    const Vec2 units(std::max(window.x, 1), std::max(window.y, 1));
    return canvas_point(at * Vec2(pixels) / units, canvas_, pixels, scaling_);
  }

  static bool wants_full_screen(const SDL_Keysym& key) {
    return key.scancode == SDL_SCANCODE_F11 ||
           (key.scancode == SDL_SCANCODE_RETURN && (key.mod & KMOD_ALT) != 0);
  }

  void switch_full_screen() {
    const bool full =
        (SDL_GetWindowFlags(window_.get()) & SDL_WINDOW_FULLSCREEN_DESKTOP) == SDL_WINDOW_FULLSCREEN_DESKTOP;
    SDL_SetWindowFullscreen(window_.get(), full ? 0 : SDL_WINDOW_FULLSCREEN_DESKTOP);
  }

  struct Pad {
    PadOwner owner;
    std::uint8_t device = 0;
  };

  void add_pad(int index) {
    PadOwner owner(SDL_GameControllerOpen(index), &SDL_GameControllerClose);
    if (!owner) return;
    const SDL_JoystickID id = SDL_JoystickInstanceID(SDL_GameControllerGetJoystick(owner.get()));
    pads_.insert_or_assign(id, Pad{std::move(owner), free_device()});
  }

  // The smallest number that no pad has; 0 is the keyboard.
  std::uint8_t free_device() const {
    const auto taken = [this](std::uint8_t device) {
      return std::any_of(pads_.begin(), pads_.end(),
                         [device](const auto& pad) { return pad.second.device == device; });
    };
    std::uint8_t device = 1;
    while (device < 255 && taken(device)) ++device;
    return device;
  }

  std::uint8_t device_of(SDL_JoystickID id) const {
    const auto found = pads_.find(id);
    return found == pads_.end() ? std::uint8_t{255} : found->second.device;
  }

  SdlInUse sdl_;
  WindowOwner window_{nullptr, &SDL_DestroyWindow};
  std::unique_ptr<Screen> screen_;  // after the window: it must go first
  std::map<SDL_JoystickID, Pad> pads_;
  std::string title_;
  std::string told_;
  IVec2 canvas_{320, 180};
  CanvasScaling scaling_ = CanvasScaling::whole;
  bool closing_ = false;
  bool started_ = false;
  Clock::time_point last_;
  Clock::time_point presented_;
};

}  // namespace

std::shared_ptr<Host> make_window_host() {
  return std::make_shared<WindowHost>();
}

int run(int argc, char** argv, Game game) {
  const std::vector<std::string> words = program_words(argc, argv);
  OutputPlace output(std::find(words.begin(), words.end(), "--headless") == words.end());
  return output.finish(run_on(make_window_host, argc, argv, std::move(game)));
}

#if defined(_WIN32)
int run(int argc, wchar_t** argv, Game game) {
  std::vector<std::string> words = program_words(argc, argv);
  std::vector<char*> pointers;
  for (std::string& word : words) pointers.push_back(word.data());
  return run(argc, pointers.data(), std::move(game));
}
#endif

}  // namespace vole
