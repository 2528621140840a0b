namespace Daxlin.Core.Rehearsal;

/// <summary>How far an invoice has come, as far as a rehearsal is concerned.</summary>
public enum RehearsedState
{
    /// <summary>No template recognises it.</summary>
    Unplaced,

    /// <summary>Captured, with findings open.</summary>
    Held,

    /// <summary>Captured, nothing open, and nobody has decided on it.</summary>
    Clear,

    /// <summary>Approved or posted: its figures are proved by a person's word.</summary>
    Decided,
}
