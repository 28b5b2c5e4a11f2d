#include "screen.hpp"

#include <SDL.h>
#include <SDL_opengl.h>

#include "vole/app/host.hpp"

namespace vole {
namespace {

// The few calls of OpenGL 1.1 that a textured rectangle needs, found at run time so that nothing links to GL.
struct GlCalls {
  decltype(&glClear) clear = nullptr;
  decltype(&glClearColor) clear_colour = nullptr;
  decltype(&glViewport) viewport = nullptr;
  decltype(&glEnable) enable = nullptr;
  decltype(&glGenTextures) make_textures = nullptr;
  decltype(&glDeleteTextures) delete_textures = nullptr;
  decltype(&glBindTexture) bind_texture = nullptr;
  decltype(&glTexParameteri) texture_option = nullptr;
  decltype(&glTexImage2D) fill_texture = nullptr;
  decltype(&glBegin) begin = nullptr;
  decltype(&glEnd) end = nullptr;
  decltype(&glTexCoord2f) texture_at = nullptr;
  decltype(&glVertex2f) point = nullptr;

  bool find_all() {
    return find(clear, "glClear") && find(clear_colour, "glClearColor") && find(viewport, "glViewport") &&
           find(enable, "glEnable") && find(make_textures, "glGenTextures") &&
           find(delete_textures, "glDeleteTextures") && find(bind_texture, "glBindTexture") &&
           find(texture_option, "glTexParameteri") && find(fill_texture, "glTexImage2D") &&
           find(begin, "glBegin") && find(end, "glEnd") && find(texture_at, "glTexCoord2f") &&
           find(point, "glVertex2f");
  }

 private:
  template <class Call>
  static bool find(Call& call, const char* name) {
    call = reinterpret_cast<Call>(SDL_GL_GetProcAddress(name));
    return call != nullptr;
  }
};

class GlScreen final : public Screen {
 public:
  GlScreen(SDL_Window* window, SDL_GLContext context, const GlCalls& gl, CanvasScaling scaling)
      : window_(window), context_(context), gl_(gl), scaling_(scaling) {
    gl_.make_textures(1, &texture_);
    gl_.enable(GL_TEXTURE_2D);
    gl_.bind_texture(GL_TEXTURE_2D, texture_);
    gl_.texture_option(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_NEAREST);
    gl_.texture_option(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_NEAREST);
  }
  ~GlScreen() override {
    gl_.delete_textures(1, &texture_);
    SDL_GL_DeleteContext(context_);
  }
  GlScreen(const GlScreen&) = delete;
  GlScreen& operator=(const GlScreen&) = delete;

  void show(const Image& canvas) override {
    IVec2 window{0, 0};
    SDL_GL_GetDrawableSize(window_, &window.x, &window.y);
    const IRect part = place_canvas(canvas.size(), window, scaling_);
    gl_.viewport(0, 0, window.x, window.y);
    gl_.clear_colour(bar_colour.r / 255.0f, bar_colour.g / 255.0f, bar_colour.b / 255.0f, 1.0f);
    gl_.clear(GL_COLOR_BUFFER_BIT);
    gl_.fill_texture(GL_TEXTURE_2D, 0, GL_RGBA, canvas.size().x, canvas.size().y, 0, GL_RGBA,
                     GL_UNSIGNED_BYTE, canvas.row(0));
    gl_.viewport(part.left(), window.y - part.bottom(), part.size.x, part.size.y);
    gl_.begin(GL_TRIANGLE_STRIP);
    corner(0, 0);
    corner(1, 0);
    corner(0, 1);
    corner(1, 1);
    gl_.end();
    SDL_GL_SwapWindow(window_);
  }

 private:
  // A corner of the canvas, counted from its top left; GL's y points up.
  void corner(float x, float y) const {
    gl_.texture_at(x, y);
    gl_.point(x * 2 - 1, 1 - y * 2);
  }

  SDL_Window* window_;
  SDL_GLContext context_;
  GlCalls gl_;
  CanvasScaling scaling_;
  GLuint texture_ = 0;
};

SDL_Rect to_sdl(const IRect& rect) {
  return {rect.at.x, rect.at.y, rect.size.x, rect.size.y};
}

class PlainScreen final : public Screen {
 public:
  PlainScreen(SDL_Window* window, CanvasScaling scaling) : window_(window), scaling_(scaling) {}

  void show(const Image& canvas) override {
    SDL_Surface* const surface = SDL_GetWindowSurface(window_);
    if (!surface) return;
    SDL_Rect target = to_sdl(place_canvas(canvas.size(), {surface->w, surface->h}, scaling_));
    SDL_FillRect(surface, nullptr, SDL_MapRGB(surface->format, bar_colour.r, bar_colour.g, bar_colour.b));
    SDL_Surface* const picture = SDL_CreateRGBSurfaceWithFormatFrom(
        const_cast<Colour*>(canvas.row(0)), canvas.size().x, canvas.size().y, 32,
        canvas.size().x * static_cast<int>(sizeof(Colour)), SDL_PIXELFORMAT_RGBA32);
    if (picture) {
      SDL_SetSurfaceBlendMode(picture, SDL_BLENDMODE_NONE);
      SDL_BlitScaled(picture, nullptr, surface, &target);
      SDL_FreeSurface(picture);
    }
    SDL_UpdateWindowSurface(window_);
  }

 private:
  SDL_Window* window_;
  CanvasScaling scaling_;
};

}  // namespace

std::unique_ptr<Screen> make_gl_screen(SDL_Window* window, CanvasScaling scaling) {
  const SDL_GLContext context = SDL_GL_CreateContext(window);
  if (!context) return nullptr;
  GlCalls gl;
  if (!gl.find_all()) {
    SDL_GL_DeleteContext(context);
    return nullptr;
  }
  SDL_GL_SetSwapInterval(1);
  return std::make_unique<GlScreen>(window, context, gl, scaling);
}

std::unique_ptr<Screen> make_plain_screen(SDL_Window* window, CanvasScaling scaling) {
  return std::make_unique<PlainScreen>(window, scaling);
}

}  // namespace vole
