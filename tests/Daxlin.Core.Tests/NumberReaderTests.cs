using System.Globalization;
using CsCheck;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

public class NumberReaderTests
{
    private static Habits Habits(char mark, string grouping, string currency = "EUR") =>
        new(Currency.Find(currency)!, DateOrder.DayFirst, mark, grouping);

    [Fact]
    public void What_is_printed_by_a_habit_is_read_by_it() => Gen
        .Select(Gen.Long[-99_999_999_999, 99_999_999_999], Gen.OneOf((',', "."), ('.', ","), (',', " "), ('.', "'")))
        .Sample((cents, habit) =>
        {
            var number = cents / 100m;
            var printed = number.ToString("N2", CultureInfo.InvariantCulture).Replace(",", "_", StringComparison.Ordinal)
                .Replace('.', habit.Item1).Replace("_", habit.Item2, StringComparison.Ordinal);
            Assert.Equal(number, NumberReader.Read(printed, Habits(habit.Item1, habit.Item2)).Number);
        });

    [Theory]
    [InlineData("GBP 1,204.50", "1204.50", "GBP")]
    [InlineData("-£288.41", "-288.41", "£")]
    [InlineData("£-288.41", "-288.41", "£")]
    [InlineData("12.00-", "-12.00", "")]
    [InlineData("(12.00)", "-12.00", "")]
    [InlineData("\u221212.00", "-12.00", "")]
    [InlineData("12.00 CR", "-12.00", "")]
    [InlineData("12.00 kr", "12.00", "kr")]
    [InlineData(".50", "0.50", "")]
    public void Signs_and_marks_are_read_on_either_side(string printed, string number, string mark)
    {
        var reading = NumberReader.Read(printed, Habits('.', ","));
        Assert.Equal((number, mark, null), (reading.Value, reading.Mark, reading.Fault));
    }

    [Theory]
    [InlineData("1.204,50")]
    [InlineData("12,34")]
    [InlineData("1,2345")]
    [InlineData("1,204,50")]
    [InlineData("1 204.50")]
    [InlineData("12.")]
    [InlineData("-")]
    [InlineData("--5.00")]
    [InlineData("12a")]
    [InlineData("5.00 each")]
    [InlineData("99999999999999999999999999999")]
    public void What_the_habit_does_not_print_is_no_number(string printed) =>
        Assert.False(NumberReader.Read(printed, Habits('.', ",")).IsGood);

    [Theory]
    [InlineData("12.005", "EUR", false)]
    [InlineData("12.5", "JPY", false)]
    [InlineData("1,250", "JPY", true)]
    [InlineData("1.250", "KWD", true)]
    public void Money_has_no_more_decimals_than_its_currency(string printed, string currency, bool good) =>
        Assert.Equal(good, ValueReader.Read(printed, ValueKind.Money, Habits('.', ",", currency)).IsGood);

    [Theory]
    [InlineData("14.03.2026", DateOrder.DayFirst, "2026-03-14")]
    [InlineData("03/04/2026", DateOrder.DayFirst, "2026-04-03")]
    [InlineData("03/04/2026", DateOrder.MonthFirst, "2026-03-04")]
    [InlineData("2026/03/14", DateOrder.DayFirst, "2026-03-14")]
    [InlineData("26.03.14", DateOrder.YearFirst, "2026-03-14")]
    [InlineData("March 14, 2026", DateOrder.MonthFirst, "2026-03-14")]
    [InlineData("14. März 2026", DateOrder.DayFirst, "2026-03-14")]
    [InlineData("1 de marzo de 2026", DateOrder.DayFirst, "2026-03-01")]
    [InlineData("3rd September 26", DateOrder.DayFirst, "2026-09-03")]
    [InlineData("31.02.2026", DateOrder.DayFirst, "")]
    [InlineData("14/13/2026", DateOrder.DayFirst, "")]
    [InlineData("tomorrow", DateOrder.DayFirst, "")]
    public void Dates_follow_the_vendors_order(string printed, DateOrder order, string date) =>
        Assert.Equal(date, DateReader.Read(printed, order).Value);

    [Theory]
    [InlineData("GB08 QTXB 0000 0017 7143 90", true)]
    [InlineData("GB08QTXB00000017714390", true)]
    [InlineData("GB08 QTXB 0000 0017 7134 90", false)]
    public void Check_digits_of_an_account_number_count(string printed, bool good) =>
        Assert.Equal(good, ValueReader.Read(printed, ValueKind.Iban, Habits('.', ",")).IsGood);
}
