namespace Daxlin.Core.Values;

/// <summary>A text read as a value: the value, or what is wrong with the text.</summary>
/// <param name="Value">The settled form ("1204.50", "2026-03-14"); empty if <paramref name="Fault"/> is set.</param>
/// <param name="Number">The same as a number, where it is one.</param>
/// <param name="Mark">The currency mark that stood beside the number, or empty.</param>
/// <param name="Fault">A sentence's end that says what is wrong ("is no date"), or null.</param>
/// <param name="IsMisprint">
/// Says that the text is meant to be such a value and is wrong: 31.02.2026, an account number with wrong check digits.
/// Other faults may only mean that something else stands there.
/// </param>
public readonly record struct Reading(string Value, decimal? Number, string Mark, string? Fault, bool IsMisprint = false)
{
    public bool IsGood => Fault is null;

    public static Reading Of(string value) => new(value, null, "", null);

    public static Reading Of(decimal number, string mark = "") =>
        new(number.ToString(System.Globalization.CultureInfo.InvariantCulture), number, mark, null);

    public static Reading Faulty(string fault) => new("", null, "", fault);

    public static Reading Misprint(string fault) => new("", null, "", fault, IsMisprint: true);
}
