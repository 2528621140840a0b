using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Daxlin.Service.Storage;

/// <summary>Times are stored and come back as UTC; SQLite alone would forget which they were.</summary>
internal sealed class UtcTime() : ValueConverter<DateTime, DateTime>(
    time => time.ToUniversalTime(), time => DateTime.SpecifyKind(time, DateTimeKind.Utc));
