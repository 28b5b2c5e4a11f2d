// The flight of many bodies in a program for browsers: it ends in the same bits as everywhere.
#include <cstdio>

#include "../flight.hpp"

int main() {
  const std::uint64_t sum = flight_of_many(3600);
  std::printf("500 bodies, 3600 ticks: %llx\n", static_cast<unsigned long long>(sum));
  return sum == sum_after_3600 ? 0 : 1;
}
