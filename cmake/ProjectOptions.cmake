# What every target shares: language level, warnings as errors, the linker, ccache.
set(CMAKE_CXX_STANDARD 20)
set(CMAKE_CXX_STANDARD_REQUIRED ON)
set(CMAKE_CXX_EXTENSIONS OFF)
set(CMAKE_EXPORT_COMPILE_COMMANDS ON)
if(NOT CMAKE_BUILD_TYPE)
  set(CMAKE_BUILD_TYPE Release)
endif()

find_program(CCACHE_PROGRAM ccache)
if(CCACHE_PROGRAM)
  # Without this sloppiness ccache keeps nothing that was built with a precompiled header.
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CMAKE_COMMAND} -E env CCACHE_SLOPPINESS=pch_defines,time_macros ${CCACHE_PROGRAM})
endif()
find_program(MOLD_PROGRAM mold)
if(MOLD_PROGRAM AND NOT WEIGHTAXIS_FUZZ)
  add_link_options(-fuse-ld=mold)
endif()

option(WEIGHTAXIS_SANITIZE "Address and undefined-behaviour sanitizers" OFF)
if(WEIGHTAXIS_SANITIZE)
  add_compile_options(-fsanitize=address,undefined -fno-omit-frame-pointer -fno-sanitize-recover=undefined)
  add_link_options(-fsanitize=address,undefined)
endif()
if(WEIGHTAXIS_FUZZ)
  add_compile_options(-fsanitize=fuzzer-no-link) # coverage of the code under test
endif()

add_library(weightaxis_options INTERFACE)
target_compile_options(weightaxis_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wconversion
                       -Wno-sign-conversion -Wnon-virtual-dtor -Woverloaded-virtual -Werror -Werror=switch
                       # g++ 12 sees ghosts in std::string (GCC bug 105651), more of them behind precompiled headers
                       $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict;-Wno-stringop-overflow;-Wno-array-bounds>)
target_include_directories(weightaxis_options INTERFACE ${CMAKE_SOURCE_DIR}/src)
