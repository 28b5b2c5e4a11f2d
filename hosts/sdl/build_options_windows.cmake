# For CMake's option -C: what is left out of SDL when it is built for games. The window host uses windows, input and
# messages, and will use sound.
foreach(part SHARED TEST RENDER VULKAN OPENGLES SENSOR HAPTIC)
  set(SDL_${part} OFF CACHE BOOL "")
endforeach()
