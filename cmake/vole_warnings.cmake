# The warnings that all of Vole's own code is free of.
function(vole_warnings target)
  target_compile_options(${target} PRIVATE -Wall -Wextra -Wpedantic -Wconversion -Wshadow)
  if(VOLE_WARNINGS_ARE_ERRORS)
    target_compile_options(${target} PRIVATE -Werror)
  endif()
endfunction()
