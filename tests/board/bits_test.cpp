#include "ninepegs/board/bits.hpp"

#include <gtest/gtest.h>

#include <bitset>

#include "ninepegs/base/random.hpp"
#include "support/processors.hpp"

namespace ninepegs {
namespace bits_test {

// Every operation against std::bitset, on random sets of all widths.
template <class Width>
class BitsTest : public testing::Test {
 public:
  static constexpr int width = Width::value;
  using Plain = std::bitset<width * 64>;

  static Bits<width> from(const Plain& model) {
    Bits<width> bits = Bits<width>::none();
    for (int i = 0; i < width * 64; ++i)
      if (model[i]) bits |= Bits<width>::of(i);
    return bits;
  }
  static Plain random(Stream& stream) {
    Plain model;
    std::uint32_t density = 1 + stream.below(8);
    for (int i = 0; i < width * 64; ++i)
      model[i] = stream.below(8) < density && stream.below(8) < density;
    return model;
  }
};

using Widths = testing::Types<std::integral_constant<int, 1>, std::integral_constant<int, 2>,
                              std::integral_constant<int, 4>, std::integral_constant<int, 8>>;
TYPED_TEST_SUITE(BitsTest, Widths);

template <class TypeParam>
void agreesWithAPlainBitset() {
  using Model = BitsTest<TypeParam>;
  constexpr int w = Model::width;
  Stream stream(5, w);
  for (int round = 0; round < 200; ++round) {
    auto a = Model::random(stream), b = Model::random(stream);
    Bits<w> x = Model::from(a), y = Model::from(b);
    EXPECT_EQ(x & y, Model::from(a & b));
    EXPECT_EQ(x | y, Model::from(a | b));
    EXPECT_EQ(minus(x, y), Model::from(a & ~b));
    EXPECT_EQ(x.count(), static_cast<int>(a.count()));
    EXPECT_EQ(x.any(), a.any());
    int any = static_cast<int>(stream.below(w * 64));
    for (int amount : {any, 0, 1, 63, 64 * w - 64, 64 * w - 1}) {
      EXPECT_EQ(shifted(x, amount), Model::from(a << amount)) << amount;
      EXPECT_EQ(shifted(x, -amount), Model::from(a >> amount)) << amount;
    }
    typename Model::Plain packed;  // the bits of a that are on b, at the low end
    for (int i = 0, at = 0; i < w * 64; ++i)
      if (b[i]) packed[at++] = a[i];
    EXPECT_EQ(gathered(x, y), Model::from(packed));
    int first = -1;
    for (int i = w * 64 - 1; i >= 0; --i)
      if (a[i]) first = i;
    EXPECT_EQ(x.first(), first);
    int rank = 0;
    Bits<w> rest = x;
    for (int i = 0; i < w * 64; ++i) {
      EXPECT_EQ(x.has(i), a[i]);
      if (!a[i]) continue;
      EXPECT_EQ(x.select(rank++), i);
      EXPECT_EQ(rest.first(), i);
      rest.dropFirst();
    }
    EXPECT_FALSE(rest.any());
  }
}
TYPED_TEST(BitsTest, AgreesWithAPlainBitset) {
  agreesWithAPlainBitset<TypeParam>();
}
TYPED_TEST(BitsTest, AgreesOnAPlainProcessor) {
  test::PlainProcessor plain;
  agreesWithAPlainBitset<TypeParam>();
}

}  // namespace bits_test
}  // namespace ninepegs
