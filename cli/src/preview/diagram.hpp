// Questions asked from the top, of which the first that is answered with yes decides: clip rules and minds are drawn so.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "preview_page.hpp"

struct Question {
  std::vector<std::string> asks;  // all of it must be true; none: always
  std::string answer, below;      // what then happens, and more about that
  // Draws a picture of the answer with its top left here; none: there is no picture.
  std::function<void(paper::Page& page, paper::IVec2 at)> picture;
  paper::IVec2 picture_size{0, 0};
};

// `otherwise`: what happens when none is.
void draw_diagram(paper::Page& page, const std::vector<Question>& questions, const std::string& otherwise);
