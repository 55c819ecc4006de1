using CsCheck;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Units;

public class QuantityTextTests
{
    [Theory]
    [InlineData("3/8 in", Quantity.Length, 0.009525)]
    [InlineData("5 ft 3 1/2 in", Quantity.Length, 1.6129)]
    [InlineData("5' 3\"", Quantity.Length, 1.6002)]
    [InlineData("3-1/2 in", Quantity.Length, 0.0889)]
    [InlineData("0,125 m", Quantity.Length, 0.125)]
    [InlineData("1,25 m", Quantity.Length, 1.25)]
    [InlineData("13,5 mm", Quantity.Length, 0.0135)]
    [InlineData("340", Quantity.Length, 0.340)]
    [InlineData("12 gal", Quantity.Volume, 45.424941)]
    [InlineData("2 bar", Quantity.Pressure, 200_000)]
    [InlineData("30 psi", Quantity.Pressure, 206_842.719)]
    [InlineData("14 F", Quantity.Temperature, -10)]
    [InlineData("−4 °F", Quantity.Temperature, -20)]
    [InlineData("- 9", Quantity.Temperature, -9)]
    [InlineData("R-13", Quantity.ThermalResistance, 2.289432)]
    [InlineData("R13", Quantity.ThermalResistance, 2.289432)]
    [InlineData("1/4 in/ft", Quantity.Fall, 0.02083333333)]
    public void Reads_what_builders_write(string text, Quantity quantity, double expected) =>
        Assert.Equal(expected, QuantityText.Parse(text, quantity, UnitSystem.Metric), Math.Abs(expected) * 1e-6);

    [Theory]
    [InlineData("", 0)]
    [InlineData("  ", 2)]
    [InlineData("abc", 0)]
    [InlineData("12 gal", 3)]
    [InlineData("1/0 in", 2)]
    [InlineData("3 in 4", 5)]
    [InlineData("--3 mm", 1)]
    [InlineData("5 ft 3 mm", 9)]
    [InlineData("1e5 mm", 1)]
    [InlineData("1,200 mm", 0)]
    public void Says_where_reading_stopped(string text, int position) =>
        Assert.Equal(position, Assert.Throws<QuantityFormatException>(() => QuantityText.Parse(text, Quantity.Length, UnitSystem.Metric)).Position);

    [Fact]
    public void A_number_that_can_be_read_two_ways_is_refused_with_both() =>
        Assert.Contains("1200 or as 1.2", Assert.Throws<QuantityFormatException>(() =>
            QuantityText.Parse("1,200 mm", Quantity.Length, UnitSystem.Metric)).Message, StringComparison.Ordinal);

    [Fact]
    public void What_is_printed_reads_back_to_the_same_print() =>
        Gen.Select(Gen.Enum<Quantity>(), Gen.Enum<UnitSystem>(), Gen.Double[-2000, 2000]).Sample((quantity, system, value) =>
        {
            string printed = QuantityText.Print(value, quantity, system);
            double read = QuantityText.Parse(printed, quantity, system);
            Assert.Equal(printed, QuantityText.Print(read, quantity, system));
        });

    [Theory]
    [InlineData(3.0, Quantity.Length, UnitSystem.UsCustomary, "9 ft 10 1/8 in")]
    [InlineData(2.7432, Quantity.Length, UnitSystem.UsCustomary, "9 ft 0 in")]
    [InlineData(0.34, Quantity.Length, UnitSystem.UsCustomary, "13 3/8 in")]
    [InlineData(23.9, Quantity.Length, UnitSystem.UsCustomary, "78.4 ft")]
    [InlineData(2622.13, Quantity.Mass, UnitSystem.Metric, "2622 kg")]
    [InlineData(421.3, Quantity.Volume, UnitSystem.Metric, "421 L")]
    public void A_number_is_no_finer_than_it_is_worth(double value, Quantity quantity, UnitSystem system, string expected)
    {
        Assert.Equal(expected, QuantityText.Print(value, quantity, system));
        // A bare number beside feet and inches is of inches.
        if (expected.EndsWith(" in", StringComparison.Ordinal)) Assert.Equal(0.254, QuantityText.Parse("10", quantity, system, expected), 1e-12);
    }

    [Fact]
    public void No_text_makes_it_fall_over() =>
        Gen.Select(Gen.String[Gen.Char["0123456789 .,/-−+'\"infmMlLgRr°%CF"], 0, 12], Gen.Enum<Quantity>()).Sample((text, quantity) =>
        {
            try
            {
                Assert.True(double.IsFinite(QuantityText.Parse(text, quantity, UnitSystem.UsCustomary)));
            }
            catch (QuantityFormatException e)
            {
                Assert.InRange(e.Position, 0, text.Length);
            }
        });
}
