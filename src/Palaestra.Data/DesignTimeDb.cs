using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Palaestra.Data;

/// <summary>Lets <c>dotnet ef migrations add</c> make a context without the server.</summary>
public sealed class DesignTimeDb : IDesignTimeDbContextFactory<PalaestraDb>
{
    public PalaestraDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<PalaestraDb>().UseSqlite("Data Source=design-time.db").Options);
}
