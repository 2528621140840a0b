namespace Daxlin.Core.Checks;

/// <summary>How much a finding weighs.</summary>
public enum Severity
{
    /// <summary>The invoice is held until a person has looked.</summary>
    Hold,

    /// <summary>Worth knowing; it holds nothing.</summary>
    Note,
}
