namespace Daxlin.Core.Corrections;

/// <summary>Names the one slip by which a printed or read number becomes another.</summary>
public static class Slip
{
    /// <returns>Empty if no single slip leads from one to the other.</returns>
    /// <example>"1240.50" and "1204.50": two figures swapped.</example>
    public static string Between(decimal was, decimal now)
    {
        if (was == -now)
            return "the sign";
        if (Math.Sign(was) != Math.Sign(now))
            return "";
        var (one, other) = (DigitsOf(was), DigitsOf(now));
        if (one.TrimStart('0').TrimEnd('0') == other.TrimStart('0').TrimEnd('0'))
            return "the decimal mark";
        // Both with as many decimals, so that equal places stand below each other.
        var scale = Math.Max(was.Scale, now.Scale);
        (one, other) = (DigitsOf(WithScale(was, scale)), DigitsOf(WithScale(now, scale)));
        if (one.Length == other.Length)
        {
            var differing = Enumerable.Range(0, one.Length).Where(at => one[at] != other[at]).ToList();
            return differing switch
            {
                [var at] => $"a figure, {one[at]} for {other[at]}",
                [var first, var second] when second == first + 1 && one[first] == other[second] && one[second] == other[first] => "two figures swapped",
                _ => "",
            };
        }
        if (one.Length == other.Length - 1 && IsWithout(other, one))
            return "a figure lost";
        return one.Length == other.Length + 1 && IsWithout(one, other) ? "a figure too many" : "";
    }

    private static decimal WithScale(decimal number, int scale) => number.Scale >= scale ? number : number + new decimal(0, 0, 0, false, (byte)scale);

    private static string DigitsOf(decimal number) =>
        string.Concat(Math.Abs(number).ToString(System.Globalization.CultureInfo.InvariantCulture).Where(char.IsAsciiDigit));

    private static bool IsWithout(string longer, string shorter) =>
        Enumerable.Range(0, longer.Length).Any(at => longer.Remove(at, 1) == shorter);
}
