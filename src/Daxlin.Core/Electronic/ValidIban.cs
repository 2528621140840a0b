using Daxlin.Core.Values;

namespace Daxlin.Core.Electronic;

/// <summary>Tells IBANs from account numbers of other forms, which stand in the same elements.</summary>
internal static class ValidIban
{
    public static bool Is(string text) => Iban.Bare(text) is { Length: >= 15 and <= 34 } bare && bare.All(char.IsAsciiLetterOrDigit) && Iban.IsRight(bare);
}
