# vole_add_game(TARGET [FOLDER dir]): tells a game's program where its files are while it is being developed, and
# installs program and files together.
#
#   add_executable(my_game src/main.cpp)
#   target_link_libraries(my_game PRIVATE vole::window)
#   vole_add_game(my_game)
#
# On Windows the program gets no console of its own, and the icon and version of VOLE_RESOURCE, a resource script that
# `vole package` writes.
#
# With g++, its sources find vole/window.hpp read already (vole_ready_headers.cmake), unless the target has a
# precompiled header of its own.
#
# FOLDER is the one that holds game.toml; the current one when left out. The program finds it through a file
# TARGET.folder beside itself, so that no path of this machine gets into the program.
function(vole_add_game target)
  cmake_parse_arguments(PARSE_ARGV 1 game "" "FOLDER" "")
  if(NOT game_FOLDER)
    set(game_FOLDER ${CMAKE_CURRENT_SOURCE_DIR})
  endif()
  get_filename_component(game_FOLDER ${game_FOLDER} ABSOLUTE)
  if(EMSCRIPTEN)
    return()  # the page brings the files along
  endif()
  if(WIN32)
    set_target_properties(${target} PROPERTIES WIN32_EXECUTABLE ON)
    if(VOLE_RESOURCE)
      target_sources(${target} PRIVATE ${VOLE_RESOURCE})
      get_filename_component(beside ${VOLE_RESOURCE} DIRECTORY)
      target_include_directories(${target} PRIVATE ${beside})
    endif()
  endif()
  # What sanitizers add makes g++ warn of what is read already.
  if(vole_ready_dir AND NOT CMAKE_CXX_FLAGS MATCHES "-fsanitize")
    set(links_window $<IN_LIST:vole::window,$<TARGET_PROPERTY:${target},LINK_LIBRARIES>>)
    set(has_own $<BOOL:$<TARGET_PROPERTY:${target},PRECOMPILE_HEADERS>>)
    set(fits $<AND:$<CONFIG:Release,Debug>,$<COMPILE_LANGUAGE:CXX>,${links_window},$<NOT:${has_own}>>)
    target_include_directories(${target} BEFORE PRIVATE $<${fits}:${vole_ready_dir}>)
    target_compile_options(${target} PRIVATE "$<${fits}:SHELL:-include vole_ready.hpp>")
    cmake_language(EVAL CODE "cmake_language(DEFER CALL vole_compile_after_ready_headers ${target})")
  endif()
  file(GENERATE OUTPUT $<TARGET_FILE:${target}>.folder CONTENT "${game_FOLDER}\n")
endfunction()

# The compiler does not say that what it makes depends on a header that was read already.
function(vole_compile_after_ready_headers target)
  get_target_property(sources ${target} SOURCES)
  list(FILTER sources EXCLUDE REGEX "[$]<")
  set_property(SOURCE ${sources} APPEND PROPERTY OBJECT_DEPENDS ${vole_ready_dir}/stamp)
endfunction()
