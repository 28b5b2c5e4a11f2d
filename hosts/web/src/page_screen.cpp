#include "page_screen.hpp"

#include <GLES2/gl2.h>
#include <emscripten/em_js.h>
#include <emscripten/html5.h>

#include <algorithm>
#include <cmath>

#include "vole/app/host.hpp"

// The pixels, put into the page's canvas at this place and of this size. clang-format knows no JavaScript.
// clang-format off
EM_JS(void, draw_in_2d, (const void* pixels, int width, int height, int left, int top, int shown_width, int shown_height), {
  const element = document.querySelector("#canvas");
  let from = Module["canvasPicture"];
  if (!from || from.width !== width || from.height !== height) {
    from = Module["canvasPicture"] = document.createElement("canvas");
    from.width = width;
    from.height = height;
  }
  const bytes = new Uint8ClampedArray(HEAPU8.subarray(pixels, pixels + 4 * width * height));
  from.getContext("2d").putImageData(new ImageData(bytes, width, height), 0, 0);
  const to = element.getContext("2d", { alpha: false });
  to.fillStyle = "#1b1a26";
  to.fillRect(0, 0, element.width, element.height);
  to.imageSmoothingEnabled = false;
  to.drawImage(from, left, top, shown_width, shown_height);
})
// clang-format on

namespace vole {
namespace {

// The bars beside the canvas.
constexpr Colour bar_colour{0x1b, 0x1a, 0x26, 0xff};

constexpr const char* vertex_source =
    "attribute vec2 corner;\n"
    "varying vec2 spot;\n"
    "void main() {\n"
    "  spot = corner;\n"
    "  gl_Position = vec4(corner.x * 2.0 - 1.0, 1.0 - corner.y * 2.0, 0.0, 1.0);\n"
    "}\n";
constexpr const char* pixel_source =
    "precision mediump float;\n"
    "uniform sampler2D picture;\n"
    "varying vec2 spot;\n"
    "void main() { gl_FragColor = vec4(texture2D(picture, spot).rgb, 1.0); }\n";

GLuint shader(GLenum type, const char* source) {
  const GLuint made = glCreateShader(type);
  glShaderSource(made, 1, &source, nullptr);
  glCompileShader(made);
  return made;
}

class WebGlScreen final : public PageScreen {
 public:
  WebGlScreen(EMSCRIPTEN_WEBGL_CONTEXT_HANDLE context, CanvasScaling scaling)
      : context_(context), scaling_(scaling) {
    set_up();
  }
  ~WebGlScreen() override { emscripten_webgl_destroy_context(context_); }
  WebGlScreen(const WebGlScreen&) = delete;
  WebGlScreen& operator=(const WebGlScreen&) = delete;

  void show(const Image& canvas) override {
    // A display that sleeps or changes may take everything away; it is made again when it is given back.
    const bool lost = emscripten_is_webgl_context_lost(context_);
    if (!lost && was_lost_) set_up();
    was_lost_ = lost;
    if (lost) return;
    const IVec2 page = fit_canvas_element();
    const IRect part = place_canvas(canvas.size(), page, scaling_);
    glViewport(0, 0, page.x, page.y);
    glClearColor(bar_colour.r / 255.0f, bar_colour.g / 255.0f, bar_colour.b / 255.0f, 1.0f);
    glClear(GL_COLOR_BUFFER_BIT);
    if (canvas.size() == size_)
      glTexSubImage2D(GL_TEXTURE_2D, 0, 0, 0, size_.x, size_.y, GL_RGBA, GL_UNSIGNED_BYTE, canvas.row(0));
    else
      glTexImage2D(GL_TEXTURE_2D, 0, GL_RGBA, canvas.size().x, canvas.size().y, 0, GL_RGBA, GL_UNSIGNED_BYTE,
                   canvas.row(0));
    size_ = canvas.size();
    glViewport(part.left(), page.y - part.bottom(), part.size.x, part.size.y);
    glDrawArrays(GL_TRIANGLE_STRIP, 0, 4);
  }

 private:
  void set_up() {
    size_ = {0, 0};
    const GLuint program = glCreateProgram();
    glAttachShader(program, shader(GL_VERTEX_SHADER, vertex_source));
    glAttachShader(program, shader(GL_FRAGMENT_SHADER, pixel_source));
    glBindAttribLocation(program, 0, "corner");
    glLinkProgram(program);
    glUseProgram(program);
    constexpr float corners[] = {0, 0, 1, 0, 0, 1, 1, 1};
    GLuint buffer = 0;
    glGenBuffers(1, &buffer);
    glBindBuffer(GL_ARRAY_BUFFER, buffer);
    glBufferData(GL_ARRAY_BUFFER, sizeof corners, corners, GL_STATIC_DRAW);
    glVertexAttribPointer(0, 2, GL_FLOAT, GL_FALSE, 0, nullptr);
    glEnableVertexAttribArray(0);
    GLuint texture = 0;
    glGenTextures(1, &texture);
    glBindTexture(GL_TEXTURE_2D, texture);
    for (const int filter : {GL_TEXTURE_MIN_FILTER, GL_TEXTURE_MAG_FILTER})
      glTexParameteri(GL_TEXTURE_2D, static_cast<GLenum>(filter), GL_NEAREST);
    // A canvas of any size, also where the sides must be powers of two otherwise.
    for (const int wrap : {GL_TEXTURE_WRAP_S, GL_TEXTURE_WRAP_T})
      glTexParameteri(GL_TEXTURE_2D, static_cast<GLenum>(wrap), GL_CLAMP_TO_EDGE);
  }

  EMSCRIPTEN_WEBGL_CONTEXT_HANDLE context_;
  CanvasScaling scaling_;
  IVec2 size_{0, 0};
  bool was_lost_ = false;
};

class TwoDScreen final : public PageScreen {
 public:
  explicit TwoDScreen(CanvasScaling scaling) : scaling_(scaling) {}
  void show(const Image& canvas) override {
    const IRect part = place_canvas(canvas.size(), fit_canvas_element(), scaling_);
    draw_in_2d(canvas.row(0), canvas.size().x, canvas.size().y, part.at.x, part.at.y, part.size.x,
               part.size.y);
  }

 private:
  CanvasScaling scaling_;
};

}  // namespace

IVec2 fit_canvas_element() {
  double width = 0, height = 0;
  emscripten_get_element_css_size(canvas_element, &width, &height);
  const double ratio = emscripten_get_device_pixel_ratio();
  const IVec2 wanted{std::max(1, static_cast<int>(std::llround(width * ratio))),
                     std::max(1, static_cast<int>(std::llround(height * ratio)))};
  IVec2 now{0, 0};
  emscripten_get_canvas_element_size(canvas_element, &now.x, &now.y);
  // Setting the size clears it, even to the same.
  if (now != wanted) emscripten_set_canvas_element_size(canvas_element, wanted.x, wanted.y);
  return wanted;
}

std::unique_ptr<PageScreen> make_webgl_screen(CanvasScaling scaling) {
  EmscriptenWebGLContextAttributes wish;
  emscripten_webgl_init_context_attributes(&wish);
  wish.alpha = wish.depth = wish.stencil = wish.antialias = EM_FALSE;
  const EMSCRIPTEN_WEBGL_CONTEXT_HANDLE context = emscripten_webgl_create_context(canvas_element, &wish);
  if (context <= 0 || emscripten_webgl_make_context_current(context) != EMSCRIPTEN_RESULT_SUCCESS)
    return nullptr;
  return std::make_unique<WebGlScreen>(context, scaling);
}

std::unique_ptr<PageScreen> make_2d_screen(CanvasScaling scaling) {
  return std::make_unique<TwoDScreen>(scaling);
}

}  // namespace vole
