using System.Globalization;
using CsCheck;
using Daxlin.Core.Values;

namespace Daxlin.Core.Tests;

/// <summary>What a printed text is worth, by each kind of value.</summary>
public class ValueReaderTests
{
    private static readonly Habits English = Habits("EUR");

    private static readonly Gen<DateOnly> Day = Gen.Int[new DateOnly(1900, 1, 1).DayNumber, new DateOnly(2199, 12, 31).DayNumber].Select(DateOnly.FromDayNumber);

    private static Habits Habits(string currency, string grouping = ",") => new(Currency.Find(currency)!, DateOrder.DayFirst, '.', grouping);

    private static string Settled(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    [Theory]
    [InlineData(DateOrder.DayFirst, "d.M.yyyy")]
    [InlineData(DateOrder.DayFirst, "dd-MM-yyyy")]
    [InlineData(DateOrder.MonthFirst, "M/d/yyyy")]
    [InlineData(DateOrder.DayFirst, "yyyy-MM-dd")]
    [InlineData(DateOrder.MonthFirst, "yyyy/M/d")]
    [InlineData(DateOrder.YearFirst, "yyyy.MM.dd")]
    [InlineData(DateOrder.DayFirst, "d MMMM yyyy")]
    [InlineData(DateOrder.DayFirst, "d. MMM yyyy")]
    [InlineData(DateOrder.MonthFirst, "MMMM d, yyyy")]
    [InlineData(DateOrder.YearFirst, "yyyy MMM d")]
    public void Every_day_of_three_centuries_is_read_as_it_is_printed(DateOrder order, string form) => Day.Sample(
        day => Assert.Equal(Settled(day), DateReader.Read(day.ToString(form, CultureInfo.InvariantCulture), order).Value));

    [Theory]
    [InlineData(DateOrder.DayFirst, "dd.MM.yy")]
    [InlineData(DateOrder.MonthFirst, "MM/dd/yy")]
    [InlineData(DateOrder.YearFirst, "yy-MM-dd")]
    [InlineData(DateOrder.DayFirst, "d MMMM yy")]
    public void A_year_of_two_figures_is_one_of_this_century(DateOrder order, string form) => Day.Where(day => day.Year is >= 2000 and <= 2099).Sample(
        day => Assert.Equal(Settled(day), DateReader.Read(day.ToString(form, CultureInfo.InvariantCulture), order).Value));

    [Theory]
    [InlineData("31.12.1899")]
    [InlineData("01.01.2200")]
    [InlineData("00.05.2026")]
    [InlineData("05.00.2026")]
    [InlineData("05.13.2026")]
    [InlineData("05.05.026")]
    [InlineData("05.05.20266")]
    [InlineData("14 2026 March")]
    [InlineData("March March 2026")]
    [InlineData("5th5.05.2026")]
    [InlineData("05.05")]
    [InlineData("05.05.2026.01")]
    public void What_is_no_day_is_none(string printed) => Assert.False(DateReader.Read(printed, DateOrder.DayFirst).IsGood);

    [Theory]
    [InlineData("1st March 2026", "2026-03-01")]
    [InlineData("22ND March 2026", "2026-03-22")]
    [InlineData("3rd March 2026", "2026-03-03")]
    [InlineData("14th March 2026", "2026-03-14")]
    [InlineData("29.02.2028", "2028-02-29")]
    [InlineData("31.12.2199", "2199-12-31")]
    public void Days_with_ordinals_and_leap_days_are_read(string printed, string date) => Assert.Equal(date, DateReader.Read(printed, DateOrder.DayFirst).Value);

    [Fact]
    public void A_day_that_does_not_exist_is_a_misprint_and_what_is_no_day_is_not()
    {
        Assert.True(DateReader.Read("30.02.2026", DateOrder.DayFirst).IsMisprint);
        Assert.False(DateReader.Read("30.13.2026", DateOrder.DayFirst).IsMisprint);
    }

    [Theory]
    [InlineData("yes y ja j oui o si sí sì s sim kyllä tak ano x true 1 ✓ ✔ ☑ ☒ YES Ja", "yes")]
    [InlineData("no n nein nee non nej nei não ei nie ne false 0 - – ☐ NO Nein", "no")]
    public void Words_and_ticks_say_yes_or_no(string words, string value) =>
        Assert.All(words.Split(' '), word => Assert.Equal((value, true), (ValueReader.Read($" {word} ", ValueKind.YesNo, English).Value, ValueReader.Read(word, ValueKind.YesNo, English).IsGood)));

    [Theory]
    [InlineData(ValueKind.YesNo, "perhaps", "is neither yes nor no")]
    [InlineData(ValueKind.Whole, "2.5", "is no whole number")]
    [InlineData(ValueKind.Percent, "5 EUR", "is no percentage")]
    [InlineData(ValueKind.Percent, "%", "is no percentage")]
    [InlineData(ValueKind.Money, "five", "is no amount")]
    [InlineData(ValueKind.Money, "1.005", "has more decimals than EUR has")]
    [InlineData(ValueKind.Currency, "$", "is no currency")]
    [InlineData(ValueKind.Text, "", "is empty")]
    public void What_is_none_of_its_kind_says_so(ValueKind kind, string printed, string fault)
    {
        var reading = ValueReader.Read(printed, kind, English);
        Assert.Equal((false, fault), (reading.IsGood, reading.Fault));
    }

    [Theory]
    [InlineData(ValueKind.Whole, "1,204", "1204")]
    [InlineData(ValueKind.Whole, "12.00", "12.00")]
    [InlineData(ValueKind.Percent, "7.5 %", "7.5")]
    [InlineData(ValueKind.Percent, " 20% ", "20")]
    [InlineData(ValueKind.Price, "0.0125", "0.0125")]
    [InlineData(ValueKind.Currency, "€", "EUR")]
    [InlineData(ValueKind.Currency, "GBP", "GBP")]
    [InlineData(ValueKind.Text, "rope", "rope")]
    public void Each_kind_is_read_in_its_settled_form(ValueKind kind, string printed, string settled)
    {
        var reading = ValueReader.Read(printed, kind, English);
        Assert.Equal((true, settled), (reading.IsGood, reading.Value));
    }

    /// <summary>Units stand where quantities stand, and none is a currency there.</summary>
    [Theory]
    [InlineData(ValueKind.Number, "12 kr")]
    [InlineData(ValueKind.Whole, "3 CUP")]
    [InlineData(ValueKind.Percent, "€ 5")]
    [InlineData(ValueKind.Number, "12.00 CR")]
    public void A_mark_of_a_currency_means_nothing_where_no_money_stands(ValueKind kind, string printed) => Assert.False(ValueReader.Read(printed, kind, English).IsGood);

    [Theory]
    [InlineData("€", false)]
    [InlineData("EUR", false)]
    [InlineData("€5", true)]
    [InlineData("5€", true)]
    [InlineData("5EUR", true)]
    [InlineData("EUR5", true)]
    [InlineData("5XYZ", false)]
    [InlineData("XYZ5", false)]
    [InlineData("-5", true)]
    [InlineData("-", false)]
    [InlineData("CR", false)]
    [InlineData("5CR", true)]
    [InlineData("5 cr", true)]
    [InlineData("1234,567", false)]
    [InlineData(",567", false)]
    [InlineData("1,234,567.00", true)]
    [InlineData("1,23,567.00", false)]
    [InlineData("1’234", false)]
    [InlineData("1 234", false)]
    public void A_mark_alone_is_no_amount_and_groups_have_three_figures(string printed, bool isGood) => Assert.Equal(isGood, NumberReader.Read(printed, English).IsGood);

    [Theory]
    [InlineData("'", "1'234.50", "1’234.50")]
    [InlineData(" ", "1 234.50", "1 234.50")]
    public void A_grouping_mark_has_its_twin_in_print(string grouping, string typed, string set) =>
        Assert.All([typed, set], printed => Assert.Equal(1234.50m, NumberReader.Read(printed, Habits("EUR", grouping)).Number));

    [Fact]
    public void A_number_has_27_figures_at_most()
    {
        var most = new string('9', 27);
        Assert.Equal(decimal.Parse(most, CultureInfo.InvariantCulture), NumberReader.Read(most, English).Number);
        Assert.False(NumberReader.Read(most + "9", English).IsGood);
        Assert.False(NumberReader.Read(new string('0', 200) + "1", English).IsGood);
    }

    /// <summary>ISO 7064 MOD 97-10 finds each figure that is another one.</summary>
    [Fact]
    public void An_account_is_one_by_its_check_digits_and_no_figure_of_it_can_be_another() => Gen
        .Select(Gen.Int[0, 3].Select(at => new[] { "GB", "DE", "NO", "MT" }[at]), Gen.Char["0123456789ABCXYZ"].Array[11, 30], Gen.Int[0, 1000], Gen.Int[1, 9])
        .Sample((country, rest, at, by) =>
        {
            var own = new string(rest);
            var bare = country + CheckDigits(country, own) + own;
            var reading = ValueReader.Read(string.Join(' ', bare.Chunk(4).Select(four => new string(four))), ValueKind.Iban, English);
            Assert.Equal((bare, true), (Iban.Bare(reading.Value), reading.IsGood));
            Assert.Equal(reading.Value, ValueReader.Read(bare.ToLowerInvariant(), ValueKind.Iban, English).Value);
            var digits = Enumerable.Range(2, bare.Length - 2).Where(place => char.IsAsciiDigit(bare[place])).ToList();
            var place = digits[at % digits.Count];
            var wrong = ValueReader.Read($"{bare[..place]}{(bare[place] - '0' + by) % 10}{bare[(place + 1)..]}", ValueKind.Iban, English);
            Assert.Equal((false, true), (wrong.IsGood, wrong.IsMisprint));
        });

    [Theory]
    [InlineData(10, false)]
    [InlineData(11, true)]
    [InlineData(30, true)]
    [InlineData(31, false)]
    public void An_account_has_15_to_34_letters(int rest, bool isGood)
    {
        var own = new string('7', rest);
        Assert.Equal(isGood, ValueReader.Read("GB" + CheckDigits("GB", own) + own, ValueKind.Iban, English).IsGood);
    }

    [Theory]
    [InlineData("1B82QTXB00000017714390")]
    [InlineData("G182QTXB00000017714390")]
    [InlineData("GB82QTXB0000001771439é")]
    public void An_account_begins_with_its_country(string printed) => Assert.False(ValueReader.Read(printed, ValueKind.Iban, English) is { IsGood: false, IsMisprint: true } or { IsGood: true });

    [Theory]
    [InlineData("F2026-014", "F2026-014", true)]
    [InlineData("F2026-014", "F2026-014 — page 2/3", true)]
    [InlineData("F2026-014 — page 2/3", "F2026-014", true)]
    [InlineData("F2026-014", "F2026-0142", false)]
    [InlineData("F2026-0142", "F2026-014", false)]
    [InlineData("", " page 2", false)]
    [InlineData("", "", true)]
    [InlineData("a", "b", false)]
    public void A_value_with_more_text_behind_it_is_the_same(string value, string other, bool isSame) => Assert.Equal(isSame, SameValue.Is(value, other));

    [Theory]
    [InlineData("EUR", "1204.5", "1204.50", "1,204.50 EUR")]
    [InlineData("JPY", "1204", "1204", "1,204 JPY")]
    [InlineData("KWD", "1.25", "1.250", "1.250 KWD")]
    [InlineData("EUR", "0.0125", "0.0125", "0.0125 EUR")]
    public void Amounts_are_shown_with_the_digits_of_their_currency_or_more(string code, string amount, string settled, string shown)
    {
        var (currency, number) = (Currency.Find(code)!, decimal.Parse(amount, CultureInfo.InvariantCulture));
        Assert.Equal((settled, shown), (currency.Settled(number), currency.Show(number)));
    }

    [Fact]
    public void A_currency_has_its_code_and_its_signs_for_marks_and_no_other()
    {
        var euro = Currency.Find("EUR")!;
        Assert.Equal(["EUR", "€"], euro.Marks.Order(StringComparer.Ordinal));
        Assert.Equal(euro.Marks, euro.Marks);
        foreach (var currency in new[] { "EUR", "SEK", "USD", "JPY" }.Select(code => Currency.Find(code)!))
        {
            Assert.All(currency.Marks, mark => Assert.True(currency.CanBePrintedAs(mark) && Currency.IsMark(mark), mark));
            Assert.Equal(currency, Currency.Find(currency.Code));
        }
        Assert.All(["kr", "kr."], mark => Assert.False(euro.CanBePrintedAs(mark)));
    }

    [Fact]
    public void Each_kind_has_a_word_of_its_own()
    {
        foreach (var kind in Enum.GetValues<ValueKind>())
            Assert.Equal(kind, ValueKinds.Find(kind.Word()));
        Assert.Null(ValueKinds.Find("colour"));
    }

    private static string CheckDigits(string country, string own)
    {
        var rest = 0;
        foreach (var letter in own + country + "00")
        {
            foreach (var digit in char.IsAsciiDigit(letter) ? $"{letter}" : (letter - 'A' + 10).ToString(CultureInfo.InvariantCulture))
                rest = (rest * 10 + digit - '0') % 97;
        }
        return (98 - rest).ToString("00", CultureInfo.InvariantCulture);
    }
}
