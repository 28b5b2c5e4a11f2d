// What a platform must offer a game: time, input, and a place to show the canvas. The game is a step that the
// host calls; no one owns the thread with a loop of their own, because a browser calls back.
#pragma once

#include <cstdint>
#include <functional>
#include <string>

#include "vole/asset/image.hpp"
#include "vole/input/tick_input.hpp"

namespace vole {

struct WindowWish {
  std::string title;
  IVec2 canvas{320, 180};
  int scale = 0;  // window pixels to a canvas pixel; 0: as large as fits
  Image icon;     // may be empty
};

class Host {
 public:
  virtual ~Host() = default;

  virtual void open(const WindowWish& wish) = 0;
  // Calls the step again and again until it returns false.
  virtual void run(const std::function<bool()>& step) = 0;
  // Nanoseconds since the call before; 0 at the first.
  virtual std::int64_t elapsed() = 0;
  // Hands over what was pressed since the call before, in order.
  virtual void gather(InputGather& gather) = 0;
  // False: nobody sees what is drawn, so it need not be.
  virtual bool shows() const = 0;
  virtual void present(const Image& canvas) = 0;
  // Whether the person asked for the end.
  virtual bool closing() const = 0;
  // A line for the person, beyond what is printed; "" takes it away.
  virtual void tell(const std::string& line) = 0;
};

// Where a canvas goes in a window: the largest whole multiple that fits, in the middle.
IRect place_canvas(IVec2 canvas, IVec2 window);

// No window, and time that passes exactly one tick a step: as fast as it can.
class HeadlessHost : public Host {
 public:
  explicit HeadlessHost(int ticks_per_second);

  void open(const WindowWish&) override {}
  void run(const std::function<bool()>& step) override;
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
