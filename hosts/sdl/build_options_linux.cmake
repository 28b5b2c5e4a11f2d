# For CMake's option -C: what is left out of SDL when it is built for packages for Linux. Display and sound libraries are loaded while
# it runs, as is its own way. A renderer stays: where there is Wayland alone it shows the window's picture.
foreach(part SHARED TEST VULKAN SENSOR HAPTIC LIBSAMPLERATE)
  set(SDL_${part} OFF CACHE BOOL "")
endforeach()
