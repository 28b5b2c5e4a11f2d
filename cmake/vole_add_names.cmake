# vole_add_names(TARGET [FOLDER dir] [HEADER name]): makes the names of a game's files constants in C++, so that a
# file that was renamed is a compile error and not a blank screen.
#
#   vole_add_names(my_game)
#   #include "names.hpp"      ->  names::sheet::vole::clip::run, names::level::beds, names::action::jump
#
# FOLDER is the one that holds game.toml; the current one when left out. The header is written again whenever a file of
# the game comes, goes or changes.
function(vole_add_names target)
  cmake_parse_arguments(PARSE_ARGV 1 names "" "FOLDER;HEADER" "")
  if(NOT names_FOLDER)
    set(names_FOLDER ${CMAKE_CURRENT_SOURCE_DIR})
  endif()
  if(NOT names_HEADER)
    set(names_HEADER names.hpp)
  endif()
  get_filename_component(names_FOLDER ${names_FOLDER} ABSOLUTE)
  set(folder ${CMAKE_CURRENT_BINARY_DIR}/${target}_names)
  # The stamp is always written; the header only when it changes, so that nothing is compiled anew for nothing.
  add_custom_command(OUTPUT ${folder}/stamp BYPRODUCTS ${folder}/${names_HEADER}
    COMMAND vole::tool atlas ${names_FOLDER} --header ${folder}/${names_HEADER}
      --depfile ${folder}/stamp.d
    COMMAND ${CMAKE_COMMAND} -E touch ${folder}/stamp
    DEPENDS vole::tool
    DEPFILE ${folder}/stamp.d
    COMMENT "Names of ${names_FOLDER}" VERBATIM)
  add_custom_target(${target}_names DEPENDS ${folder}/stamp)
  add_dependencies(${target} ${target}_names)
  target_include_directories(${target} PRIVATE ${folder})
endfunction()
