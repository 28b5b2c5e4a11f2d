# vole/window.hpp, read by the compiler once and for all games: a game's source that would read it for seconds finds it read. One
# for each kind of build that a game usually has. The compiler takes what fits its own version and options and leaves the rest,
# so a game of other options is compiled as it would be without.
set(vole_ready_dir ${CMAKE_CURRENT_BINARY_DIR}/ready)
set(vole_ready_compiler ${CMAKE_CXX_COMPILER_VERSION})
set(header ${vole_ready_dir}/vole_ready.hpp)
file(CONFIGURE OUTPUT ${header} CONTENT "#include <vole/window.hpp>\n")

function(vole_ready_header kind)
  set(made ${header}.gch/${kind})
  separate_arguments(flags NATIVE_COMMAND "${CMAKE_CXX_FLAGS}")
  add_custom_command(OUTPUT ${made}
    COMMAND ${CMAKE_COMMAND} -E make_directory ${header}.gch
    COMMAND ${CMAKE_CXX_COMPILER} ${flags} -std=gnu++20 -ffp-contract=off ${ARGN}
      -isystem ${PROJECT_SOURCE_DIR}/include -isystem ${PROJECT_SOURCE_DIR}/hosts/include
      -MD -MT ${made} -MF ${made}.d -x c++-header ${header} -o ${made}
    DEPENDS ${PROJECT_SOURCE_DIR}/hosts/include/vole/window.hpp DEPFILE ${made}.d
    COMMENT "vole/window.hpp, ready for games (${kind})" VERBATIM)
endfunction()

vole_ready_header(release -O3 -DNDEBUG)
vole_ready_header(debug -g)
# Games are compiled anew when this is newer.
add_custom_command(OUTPUT ${vole_ready_dir}/stamp DEPENDS ${header}.gch/release ${header}.gch/debug
  COMMAND ${CMAKE_COMMAND} -E touch ${vole_ready_dir}/stamp VERBATIM)
add_custom_target(vole_ready ALL DEPENDS ${vole_ready_dir}/stamp)
install(FILES ${header} ${vole_ready_dir}/stamp DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/vole/ready)
install(FILES ${header}.gch/release ${header}.gch/debug
  DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/vole/ready/vole_ready.hpp.gch)
