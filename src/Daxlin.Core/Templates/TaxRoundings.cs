namespace Daxlin.Core.Templates;

/// <summary>Where a vendor rounds its tax to the minor unit; several while it is not known which.</summary>
/// <example>
/// Two lines of 1.03 at 19 % and one of 1.07 at 7 %: by line 0.20 + 0.20 + 0.07 = 0.47, by rate 19 % of 2.06 is 0.39 and with
/// 0.07 makes 0.46, once 0.3914 + 0.0749 = 0.4663 makes 0.47.
/// </example>
[Flags]
public enum TaxRoundings
{
    None = 0,
    ByLine = 1,
    ByRate = 2,
    Once = 4,
    Any = ByLine | ByRate | Once,
}
