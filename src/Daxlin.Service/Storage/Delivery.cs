namespace Daxlin.Service.Storage;

/// <summary>The handing of one posting run to one receiver.</summary>
public sealed class Delivery
{
    public int Id { get; set; }

    /// <summary>By which the receiver knows it again: the same however often it is tried.</summary>
    public required string Key { get; set; }

    public int RunNumber { get; set; }

    /// <summary>The receiver's name. Its newest version counts, so that a mistake in it is mended for what waits.</summary>
    public required string Receiver { get; set; }

    public required DateTime AskedAt { get; set; }
    public required string AskedBy { get; set; }

    public DeliveryState State { get; set; }

    /// <summary>Says that something of it may have reached the receiver. Stored before the first step that the receiver can see.</summary>
    public bool IsBegun { get; set; }

    /// <summary>How often it failed.</summary>
    public int Attempts { get; set; }

    /// <summary>When it is tried next, while it waits.</summary>
    public DateTime NextAt { get; set; }

    /// <summary>When it was delivered, given up or settled.</summary>
    public DateTime? EndedAt { get; set; }

    /// <summary>What the receiver said to it, or why it failed last.</summary>
    public string Says { get; set; } = "";

    /// <summary>A delivery that is to be tried at once.</summary>
    public static Delivery Of(int run, string receiver, DateTime at, string who) =>
        new() { Key = Guid.NewGuid().ToString("N"), RunNumber = run, Receiver = receiver, AskedAt = at, AskedBy = who, NextAt = at };
}
