# Installing, and finding what was installed: find_package(vole) and pkg-config.
include(CMakePackageConfigHelpers)

set(vole_cmake_dir ${CMAKE_INSTALL_LIBDIR}/cmake/vole)
set(vole_targets vole_core)
if(VOLE_WINDOW)
  list(APPEND vole_targets vole_window)
endif()

install(TARGETS ${vole_targets} EXPORT vole_targets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR})
install(DIRECTORY include/vole DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
install(EXPORT vole_targets NAMESPACE vole:: DESTINATION ${vole_cmake_dir})
if(VOLE_WINDOW)
  install(DIRECTORY hosts/include/vole DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
endif()
# From which `vole setup` builds it for other systems.
install(DIRECTORY src hosts include cmake DESTINATION ${CMAKE_INSTALL_DATADIR}/vole/source)
install(FILES CMakeLists.txt LICENSE DESTINATION ${CMAKE_INSTALL_DATADIR}/vole/source)
install(FILES LICENSE DESTINATION ${CMAKE_INSTALL_DATADIR}/vole)

configure_package_config_file(cmake/vole-config.cmake.in ${CMAKE_CURRENT_BINARY_DIR}/vole-config.cmake
  INSTALL_DESTINATION ${vole_cmake_dir})
write_basic_package_version_file(${CMAKE_CURRENT_BINARY_DIR}/vole-config-version.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/vole-config.cmake ${CMAKE_CURRENT_BINARY_DIR}/vole-config-version.cmake
  cmake/vole_add_game.cmake cmake/vole_add_names.cmake DESTINATION ${vole_cmake_dir})

# The build tree can be found like an installed one: -Dvole_DIR=<build folder>.
export(EXPORT vole_targets NAMESPACE vole:: FILE ${CMAKE_CURRENT_BINARY_DIR}/vole_targets.cmake)
file(COPY cmake/vole_add_game.cmake cmake/vole_add_names.cmake DESTINATION ${CMAKE_CURRENT_BINARY_DIR})

# The way from the folder of the pkg-config files to the prefix, so that they hold wherever they are installed to.
file(RELATIVE_PATH vole_pc_to_prefix /prefix/${CMAKE_INSTALL_LIBDIR}/pkgconfig /prefix)
string(REGEX REPLACE "/$" "" vole_pc_to_prefix "${vole_pc_to_prefix}")
configure_file(cmake/vole.pc.in ${CMAKE_CURRENT_BINARY_DIR}/vole.pc @ONLY)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/vole.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
if(VOLE_WINDOW)
  configure_file(cmake/vole-window.pc.in ${CMAKE_CURRENT_BINARY_DIR}/vole-window.pc @ONLY)
  install(FILES ${CMAKE_CURRENT_BINARY_DIR}/vole-window.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
endif()
