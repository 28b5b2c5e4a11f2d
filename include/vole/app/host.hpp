// What a platform must offer a game: time, input, and somewhere to show the canvas. The game is a step that the
// host calls; no loop of ours owns the thread, because a browser calls back. For the same reason
// the host owns what it runs: nothing needs to survive on the stack of main().
#pragma once

#include <cstdint>
#include <memory>
#include <string>

#include "vole/app/project.hpp"
#include "vole/asset/image.hpp"
#include "vole/input/gather.hpp"

namespace vole {

struct WindowWish {
  std::string title;
  IVec2 canvas{320, 180};
  int scale = 0;  // window pixels to a canvas pixel; 0: as large as fits
  Image icon;     // may be empty
  CanvasScaling scaling = CanvasScaling::whole;
};

// What a host runs.
class HostedRun {
 public:
  virtual ~HostedRun() = default;
  // What has passed since the last step; false when the run is over.
  virtual bool step() = 0;
  // Once, at the end: writes what is to be written, prints the closing line, and returns the exit code.
  virtual int finish() = 0;
};

class Host {
 public:
  virtual ~Host() = default;

  virtual void open(const WindowWish& wish) = 0;
  // Takes the run over, calls its step until it is over, and lets it go. Returns its exit code; where the system
  // calls back, 0 at once, and the host keeps itself and the run.
  virtual int run(std::unique_ptr<HostedRun> run) = 0;
  // Nanoseconds since the call before; 0 at the first.
  virtual std::int64_t elapsed() = 0;
  // Hands over what was pressed since the call before, in order.
  virtual void gather(InputGather& gather) = 0;
  // False: nothing that is drawn is seen, so drawing may be left out.
  virtual bool shows() const = 0;
  virtual void present(const Image& canvas) = 0;
  // Whether the person asked for the end.
  virtual bool closing() const = 0;
  // A line for the person, beyond what is printed; "" takes it away.
  virtual void tell(const std::string& line) = 0;
};

// Where a canvas goes in a window, in its middle: see CanvasScaling. What does not fit in lies outside.
IRect place_canvas(IVec2 canvas, IVec2 window, CanvasScaling scaling = CanvasScaling::whole);
// The point of the canvas under a pixel of the window, when it is so placed: beyond its sides where the bars are.
Vec2 canvas_point(Vec2 in_window, IVec2 canvas, IVec2 window, CanvasScaling scaling = CanvasScaling::whole);

// No window, and time that passes exactly one tick a step: as fast as it can.
class HeadlessHost : public Host {
 public:
  explicit HeadlessHost(int ticks_per_second);

  void open(const WindowWish&) override {}
  int run(std::unique_ptr<HostedRun> run) override;
  std::int64_t elapsed() override;
  void gather(InputGather&) override {}
  bool shows() const override { return false; }
  void present(const Image&) override {}
  bool closing() const override { return false; }
  void tell(const std::string&) override {}

 private:
  std::int64_t rate_;
  std::int64_t steps_ = 0;
};

}  // namespace vole
