namespace Daxlin.Core.Rehearsal;

/// <summary>What a change of templates would do to an invoice, the gravest first.</summary>
public enum Verdict
{
    /// <summary>Values of an approved or posted invoice come out otherwise: the new template is wrong, or a person was.</summary>
    DecidedChanges,

    /// <summary>Values of a clear invoice come out otherwise.</summary>
    ClearChanges,

    /// <summary>An invoice that was captured is recognised no more, or by another template.</summary>
    Lost,

    /// <summary>The same values, but a clear, approved or posted invoice would be held.</summary>
    Worse,

    /// <summary>Values of a held invoice come out otherwise, and it stays held.</summary>
    HeldChanges,

    /// <summary>Captured where it was unplaced, or clear where it was held.</summary>
    Better,

    /// <summary>As it was.</summary>
    Same,
}
