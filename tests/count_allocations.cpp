// Replaces the global operator new of the test program by one that counts; not under the address sanitizer,
// which has its own.
#include <atomic>
#include <cstdlib>
#include <new>

#include "support.hpp"

namespace {

std::atomic<std::int64_t> allocations{0};

}  // namespace

std::int64_t allocations_so_far() {
  return allocations;
}

#if defined(__SANITIZE_ADDRESS__)
#define VOLE_COUNTS_ALLOCATIONS 0
#elif defined(__has_feature)
#if __has_feature(address_sanitizer)
#define VOLE_COUNTS_ALLOCATIONS 0
#endif
#endif
#ifndef VOLE_COUNTS_ALLOCATIONS
#define VOLE_COUNTS_ALLOCATIONS 1
#endif

bool allocations_are_counted() {
  return VOLE_COUNTS_ALLOCATIONS == 1;
}

#if VOLE_COUNTS_ALLOCATIONS
void* operator new(std::size_t size) {
  ++allocations;
  if (void* memory = std::malloc(size ? size : 1)) return memory;
  throw std::bad_alloc();
}
void operator delete(void* memory) noexcept {
  std::free(memory);
}
void operator delete(void* memory, std::size_t) noexcept {
  std::free(memory);
}
#endif
