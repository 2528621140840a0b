namespace Daxlin.Core.Templates.Tidy;

/// <summary>Keeps the digits of a text, or its letters, and nothing else: "0041-772 / 9" is 00417729.</summary>
public sealed record KeepOnly(bool Digits) : TidyStep
{
    public override string Name => "keep";

    public override string Apply(string text) => string.Concat(text.Where(Digits ? char.IsAsciiDigit : char.IsLetter));
}
