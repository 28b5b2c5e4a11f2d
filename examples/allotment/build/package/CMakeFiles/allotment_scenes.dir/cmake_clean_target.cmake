file(REMOVE_RECURSE
  "liballotment_scenes.a"
)
