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
  file(GENERATE OUTPUT $<TARGET_FILE:${target}>.folder CONTENT "${game_FOLDER}\n")
endfunction()
