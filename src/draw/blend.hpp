// Rows of pixels onto rows of pixels. The SSE2 paths give the same bits as the plain ones.
#pragma once

#include <algorithm>
#include <cstring>

#include "vole/draw/raster.hpp"

#if defined(__SSE2__)
#include <emmintrin.h>
#endif

namespace vole {

inline Colour tinted(Colour pixel, Colour by) {
  return {multiply(pixel.r, by.r), multiply(pixel.g, by.g), multiply(pixel.b, by.b), multiply(pixel.a, by.a)};
}

inline Colour over(Colour above, Colour below) {
  const auto keep = static_cast<std::uint8_t>(255 - above.a);
  const auto part = [keep](std::uint8_t a, std::uint8_t b) {
    return static_cast<std::uint8_t>(a + multiply(b, keep));
  };
  return {part(above.r, below.r), part(above.g, below.g), part(above.b, below.b), part(above.a, below.a)};
}

// A premultiplied pixel moved towards one colour by that colour's alpha; its own alpha stays.
inline Colour flashed(Colour pixel, Colour flash) {
  const auto keep = static_cast<std::uint8_t>(255 - flash.a);
  const auto part = [&](std::uint8_t mine, std::uint8_t other) {
    const int sum = multiply(mine, keep) + multiply(multiply(other, pixel.a), flash.a);
    return static_cast<std::uint8_t>(
        std::min<int>(sum, pixel.a));  // rounding must not make it brighter than white
  };
  return {part(pixel.r, flash.r), part(pixel.g, flash.g), part(pixel.b, flash.b), pixel.a};
}

// Light on top of light; the canvas stays opaque.
inline Colour added(Colour above, Colour below) {
  const auto part = [](std::uint8_t a, std::uint8_t b) {
    return static_cast<std::uint8_t>(std::min(a + b, 255));
  };
  return {part(above.r, below.r), part(above.g, below.g), part(above.b, below.b), below.a};
}

// What is below through a coloured glass: clear leaves it, black opaque makes it black.
inline Colour multiplied_by(Colour above, Colour below) {
  const auto part = [&above](std::uint8_t a, std::uint8_t b) {
    return multiply(b, static_cast<std::uint8_t>(a + 255 - above.a));
  };
  return {part(above.r, below.r), part(above.g, below.g), part(above.b, below.b), below.a};
}

inline void copy_row(Colour* to, const Colour* from, int count) {
  std::memcpy(to, from, static_cast<std::size_t>(count) * sizeof(Colour));
}

#if defined(__SSE2__)

namespace sse {

// a * b / 255 for eight 16-bit lanes, rounded like multiply(): for x up to 65,534, x * 257 >> 16 is (x + (x
// >> 8)) >> 8.
inline __m128i multiply_lanes(__m128i a, __m128i b) {
  const __m128i product = _mm_add_epi16(_mm_mullo_epi16(a, b), _mm_set1_epi16(128));
  return _mm_mulhi_epu16(product, _mm_set1_epi16(257));
}

inline __m128i load(const Colour* from) {
  return _mm_loadu_si128(reinterpret_cast<const __m128i*>(from));
}
inline void store(Colour* to, __m128i pixels) {
  _mm_storeu_si128(reinterpret_cast<__m128i*>(to), pixels);
}

inline __m128i over4(__m128i above, __m128i below) {
  const __m128i zero = _mm_setzero_si128();
  // 255 - alpha, in each of the four lanes of its pixel.
  const __m128i keep = _mm_srli_epi32(_mm_xor_si128(above, _mm_set1_epi32(-1)), 24);
  const __m128i keep2 = _mm_or_si128(keep, _mm_slli_epi32(keep, 16));
  const __m128i low = multiply_lanes(_mm_unpacklo_epi8(below, zero), _mm_unpacklo_epi32(keep2, keep2));
  const __m128i high = multiply_lanes(_mm_unpackhi_epi8(below, zero), _mm_unpackhi_epi32(keep2, keep2));
  return _mm_add_epi8(above, _mm_packus_epi16(low, high));
}

inline __m128i tinted4(__m128i pixels, __m128i by_wide) {
  const __m128i zero = _mm_setzero_si128();
  return _mm_packus_epi16(multiply_lanes(_mm_unpacklo_epi8(pixels, zero), by_wide),
                          multiply_lanes(_mm_unpackhi_epi8(pixels, zero), by_wide));
}

// Eight pixels over eight: most stretches of a sprite are all clear or all opaque, and one look tells for
// both halves.
inline bool settle8(Colour* to, __m128i first, __m128i second) {
  const __m128i alpha_bits = _mm_set1_epi32(static_cast<int>(0xff000000u));
  const __m128i least = _mm_and_si128(_mm_and_si128(first, second), alpha_bits);
  if (_mm_movemask_epi8(_mm_cmpeq_epi32(least, alpha_bits)) == 0xffff) {
    store(to, first);
    store(to + 4, second);
    return true;
  }
  return _mm_movemask_epi8(_mm_cmpeq_epi32(_mm_or_si128(first, second), _mm_setzero_si128())) == 0xffff;
}

// Four pixels over four, skipping the work where all hide or all show what is below.
inline void blend4(Colour* to, __m128i above) {
  const __m128i alpha_bits = _mm_set1_epi32(static_cast<int>(0xff000000u));
  if (_mm_movemask_epi8(_mm_cmpeq_epi32(_mm_and_si128(above, alpha_bits), alpha_bits)) == 0xffff)
    store(to, above);
  else if (_mm_movemask_epi8(_mm_cmpeq_epi32(above, _mm_setzero_si128())) != 0xffff)
    store(to, over4(above, load(to)));
}

}  // namespace sse

#endif

inline void over_row(Colour* to, const Colour* from, int count) {
  int x = 0;
#if defined(__SSE2__)
  for (; x + 8 <= count; x += 8) {
    const __m128i first = sse::load(from + x), second = sse::load(from + x + 4);
    if (sse::settle8(to + x, first, second)) continue;
    sse::blend4(to + x, first);
    sse::blend4(to + x + 4, second);
  }
  for (; x + 4 <= count; x += 4) sse::blend4(to + x, sse::load(from + x));
#endif
  for (; x < count; ++x) to[x] = over(from[x], to[x]);
}

inline void tinted_over_row(Colour* to, const Colour* from, int count, Colour by) {
  int x = 0;
#if defined(__SSE2__)
  const __m128i by_wide = _mm_set_epi16(by.a, by.b, by.g, by.r, by.a, by.b, by.g, by.r);
  for (; x + 4 <= count; x += 4) sse::blend4(to + x, sse::tinted4(sse::load(from + x), by_wide));
#endif
  for (; x < count; ++x) to[x] = over(tinted(from[x], by), to[x]);
}

inline void fill_row(Colour* to, int count, Colour premultiplied) {
  if (premultiplied.a == 255) {
    for (int x = 0; x < count; ++x) to[x] = premultiplied;
    return;
  }
  int x = 0;
#if defined(__SSE2__)
  std::int32_t bits = 0;
  std::memcpy(&bits, &premultiplied, sizeof bits);
  const __m128i above = _mm_set1_epi32(bits);
  for (; x + 4 <= count; x += 4) sse::store(to + x, sse::over4(above, sse::load(to + x)));
#endif
  for (; x < count; ++x) to[x] = over(premultiplied, to[x]);
}

}  // namespace vole
