# Which sources of the library are made small: those that work once, when something is read, written or asked for. They are half of
# what a game takes along, and a third smaller so.

set(small_sources ${core_sources})
list(FILTER small_sources INCLUDE REGEX "^src/(app|asset|input|level|scene/ready)/\
|^src/base/(error|file|names|node|partial|paths|program|reading|schema|toml_message|watch|writing)\
|^src/scene/pictures/xray\
|^src/world/([a-z]+_hooks|checks|compiled_kinds|file_here|live_numbers|slips|tile_components)")
# Of those folders, what works in each tick, or on each pixel or cell.
foreach(fast app/simulation asset/clip asset/clip_rules asset/clip_set asset/frame_cut asset/image asset/outline asset/outline_border
        asset/packing asset/picture asset/track input/input input/tick_input level/edges level/level_builder level/level_path
        level/piece_cells level/tile_table level/way_field)
  list(REMOVE_ITEM small_sources src/${fast}.cpp)
endforeach()
# A page is loaded before it is played, so there only what is slow for being small is made fast.
if(EMSCRIPTEN)
  set(small_sources ${core_sources})
  list(FILTER small_sources EXCLUDE REGEX "^src/(physics|draw)/")
endif()
