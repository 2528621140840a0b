namespace Daxlin.Service.Storage;

/// <summary>What came of a schedule's turn.</summary>
public enum TurnOutcome
{
    /// <summary>What it says was done; a message may still be on its way.</summary>
    Done,

    /// <summary>There was nothing to do.</summary>
    Nothing,

    /// <summary>It could not be done, or not all of it: a person has to look.</summary>
    Refused,
}
