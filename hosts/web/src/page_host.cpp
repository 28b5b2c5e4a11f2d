// The page of a browser as a host. The page's own script (hosts/web/page) loads the files, calls main, and is told when the game
// is over; keys, mouse, pads and frames come from the browser.
#include <emscripten/em_js.h>
#include <emscripten/emscripten.h>
#include <emscripten/html5.h>
#include <fmt/core.h>

#include <cstdio>
#include <exception>

#include "page_input.hpp"
#include "page_screen.hpp"
#include "vole/window.hpp"

// clang-format off
EM_JS(void, show_page_title, (const char* title), { document.title = UTF8ToString(title); })
EM_JS(void, tell_page_of_start, (), { Module["begun"](); })
EM_JS(void, tell_page_of_end, (int code), { Module["ended"](code); })
EM_JS(void, switch_full_screen, (), { Module["switchFullScreen"](); })
// clang-format on

namespace vole {
namespace {

class PageHost final : public Host {
 public:
  PageHost() { one_ = this; }
  ~PageHost() override { one_ = nullptr; }
  PageHost(const PageHost&) = delete;
  PageHost& operator=(const PageHost&) = delete;
  // The page has one; nullptr when there is none.
  static PageHost* one() { return one_; }

  void open(const WindowWish& wish) override {
    title_ = wish.title;
    canvas_ = wish.canvas;
    scaling_ = wish.scaling;
    show_page_title(title_.c_str());
    screen_ = make_webgl_screen(wish.scaling);
    if (!screen_) screen_ = make_2d_screen(wish.scaling);
    listen();
  }

  int run(std::unique_ptr<HostedRun> run) override {
    run_ = std::move(run);
    tell_page_of_start();
    emscripten_request_animation_frame_loop(&on_frame, this);
    return 0;
  }

  std::int64_t elapsed() override {
    const double now = emscripten_get_now();
    const double passed = started_ ? now - last_ : 0;
    started_ = true;
    last_ = now;
    return static_cast<std::int64_t>(passed * 1e6);
  }

  void gather(InputGather& gather) override {
    input_.ask_pads();
    input_.hand_over(gather);
  }

  bool shows() const override { return true; }
  void present(const Image& canvas) override { screen_->show(canvas); }
  bool closing() const override { return closing_; }
  void tell(const std::string& line) override {
    if (line != told_) show_page_title(line.empty() ? title_.c_str() : line.c_str());
    told_ = line;
  }

  PageInput& input() { return input_; }
  void close() { closing_ = true; }

 private:
  // While the page is hidden nothing calls, and the time until it is shown again does not count.
  void stand_still() {
    input_.let_go_of_all();
    started_ = false;
  }

  void listen() {
    const char* const window = EMSCRIPTEN_EVENT_TARGET_WINDOW;
    emscripten_set_keydown_callback(window, this, EM_TRUE, &on_key);
    emscripten_set_keyup_callback(window, this, EM_TRUE, &on_key);
    emscripten_set_mousedown_callback(canvas_element, this, EM_TRUE, &on_mouse);
    emscripten_set_mouseup_callback(window, this, EM_TRUE, &on_mouse);
    emscripten_set_mousemove_callback(canvas_element, this, EM_TRUE, &on_mouse_move);
    emscripten_set_mouseleave_callback(canvas_element, this, EM_TRUE, &on_mouse_leave);
    emscripten_set_wheel_callback(canvas_element, this, EM_TRUE, &on_wheel);
    emscripten_set_touchstart_callback(canvas_element, this, EM_TRUE, &on_touch);
    emscripten_set_touchmove_callback(canvas_element, this, EM_TRUE, &on_touch);
    emscripten_set_touchend_callback(canvas_element, this, EM_TRUE, &on_touch);
    emscripten_set_touchcancel_callback(canvas_element, this, EM_TRUE, &on_touch);
    emscripten_set_blur_callback(window, this, EM_TRUE, &on_blur);
    emscripten_set_visibilitychange_callback(this, EM_TRUE, &on_visibility);
  }

  static EM_BOOL on_frame(double, void* self) {
    auto& host = *static_cast<PageHost*>(self);
    if (host.step()) return EM_TRUE;
    host.end();
    return EM_FALSE;
  }

  bool step() {
    try {
      return run_->step();
    } catch (const std::exception& error) {
      say(error);
      failed_ = true;
    }
    return false;
  }

  void end() {
    int code = 1;
    try {
      code = run_->finish();
    } catch (const std::exception& error) {
      say(error);
    }
    std::fflush(stdout);
    emscripten_html5_remove_all_event_listeners();
    tell_page_of_end(failed_ ? 1 : code);
    run_.reset();  // and with it, perhaps, this
  }

  static void say(const std::exception& error) {
    const bool ours = dynamic_cast<const Error*>(&error) != nullptr;
    fmt::print(stderr, "{}{}\n", ours ? "" : "error: ", error.what());
  }

  static EM_BOOL on_key(int type, const EmscriptenKeyboardEvent* event, void* self) {
    auto& host = *static_cast<PageHost*>(self);
    const bool down = type == EMSCRIPTEN_EVENT_KEYDOWN;
    // What the browser does with these is the player's wish.
    if (down && (event->ctrlKey || event->metaKey)) return EM_FALSE;
    if (down && event->altKey && std::string_view(event->code) == "Enter") {
      switch_full_screen();
      return EM_TRUE;
    }
    if (!event->repeat) {
      host.input_.put(fmt::format("key {}", static_cast<const char*>(event->code)), down ? 1.0f : 0.0f);
      host.input_.put_letter(event->code, event->key, down);
    }
    return page_would_use(event->code) ? EM_TRUE : EM_FALSE;
  }

  static EM_BOOL on_mouse(int type, const EmscriptenMouseEvent* event, void* self) {
    constexpr const char* names[] = {"mouse left", "mouse middle", "mouse right", "mouse back",
                                     "mouse forward"};
    if (event->button < std::size(names))
      static_cast<PageHost*>(self)->input_.put(names[event->button],
                                               type == EMSCRIPTEN_EVENT_MOUSEDOWN ? 1.0f : 0.0f);
    return EM_FALSE;
  }

  // The point of the canvas under one of the element, which is counted in the page's own units.
  Vec2 on_canvas(double x, double y) const {
    const double ratio = emscripten_get_device_pixel_ratio();
    return canvas_point({static_cast<float>(x * ratio), static_cast<float>(y * ratio)}, canvas_,
                        fit_canvas_element(), scaling_);
  }

  static EM_BOOL on_mouse_move(int, const EmscriptenMouseEvent* event, void* self) {
    auto& host = *static_cast<PageHost*>(self);
    const Vec2 at = host.on_canvas(static_cast<double>(event->targetX), static_cast<double>(event->targetY));
    const bool inside = Rect{{0, 0}, Vec2(host.canvas_)}.contains(at);
    host.input_.point_at(inside ? std::optional(at) : std::nullopt);
    return EM_FALSE;
  }
  static EM_BOOL on_mouse_leave(int, const EmscriptenMouseEvent*, void* self) {
    static_cast<PageHost*>(self)->input_.point_at(std::nullopt);
    return EM_FALSE;
  }

  // A turn of any length is a notch: what a browser counts in differs from one to the next.
  static EM_BOOL on_wheel(int, const EmscriptenWheelEvent* event, void* self) {
    const auto notch = [](double turned) { return turned > 0 ? 1 : turned < 0 ? -1 : 0; };
    static_cast<PageHost*>(self)->input_.turn_wheel({notch(event->deltaX), notch(event->deltaY)});
    return EM_TRUE;
  }

  static EM_BOOL on_touch(int type, const EmscriptenTouchEvent* event, void* self) {
    auto& host = *static_cast<PageHost*>(self);
    const FingerPhase phase = type == EMSCRIPTEN_EVENT_TOUCHSTART  ? FingerPhase::down
                              : type == EMSCRIPTEN_EVENT_TOUCHMOVE ? FingerPhase::moves
                                                                   : FingerPhase::up;
    for (int i = 0; i < event->numTouches; ++i) {
      const EmscriptenTouchPoint& touch = event->touches[i];
      if (!touch.isChanged) continue;
      const Vec2 at = host.on_canvas(static_cast<double>(touch.targetX), static_cast<double>(touch.targetY));
      host.input_.touch({touch.identifier, phase, at});
    }
    return EM_FALSE;
  }

  static EM_BOOL on_blur(int, const EmscriptenFocusEvent*, void* self) {
    static_cast<PageHost*>(self)->input_.let_go_of_all();
    return EM_FALSE;
  }

  static EM_BOOL on_visibility(int, const EmscriptenVisibilityChangeEvent*, void* self) {
    static_cast<PageHost*>(self)->stand_still();
    return EM_FALSE;
  }

  static inline PageHost* one_ = nullptr;

  std::unique_ptr<HostedRun> run_;
  std::unique_ptr<PageScreen> screen_;
  PageInput input_;
  std::string title_;
  std::string told_;
  IVec2 canvas_{320, 180};
  CanvasScaling scaling_ = CanvasScaling::whole;
  double last_ = 0;  // milliseconds
  bool started_ = false;
  bool closing_ = false;
  bool failed_ = false;
};

}  // namespace

std::shared_ptr<Host> make_window_host() {
  return std::make_shared<PageHost>();
}

int run(int argc, char** argv, Game game) {
  return run_on(make_window_host, argc, argv, std::move(game));
}

// What the page's script calls.
extern "C" {
// An area of a touch screen that stands for a control.
EMSCRIPTEN_KEEPALIVE void vole_touch(const char* control, float value) {
  if (PageHost* const host = PageHost::one()) host->input().put(control, value);
}
// Ends the game as a closed window would.
EMSCRIPTEN_KEEPALIVE void vole_close() {
  if (PageHost* const host = PageHost::one()) host->close();
}
}

}  // namespace vole
